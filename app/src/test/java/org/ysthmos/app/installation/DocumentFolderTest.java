package org.ysthmos.app.installation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.app.command.Refused;

class DocumentFolderTest {

  @TempDir private Path folder;

  @Test
  void onlyOurDocumentsAreReadWrittenAndTakenOut() throws Exception {
    Files.createDirectories(folder.resolve("bridges"));
    Files.createDirectories(folder.resolve("notes"));
    Files.writeString(folder.resolve("bridges/gone.yaml"), "old");
    Files.writeString(folder.resolve("bridges/README.md"), "for people");
    Files.writeString(folder.resolve("notes/any.yaml"), "for people");
    DocumentFolder documents = new DocumentFolder(folder);
    Map<String, String> wanted =
        Map.of("bridges/a.yaml", "bridge: a\n", "alarms.yaml", "x\n", "tables/t.yaml", "ü\n");

    assertThat(documents.write(wanted))
        .containsExactly("alarms.yaml", "bridges/a.yaml", "tables/t.yaml", "bridges/gone.yaml");
    assertThat(documents.read()).isEqualTo(wanted);
    assertThat(folder.resolve("bridges/README.md")).exists();
    assertThat(folder.resolve("notes/any.yaml")).exists();
    // What is as it is to be is not touched.
    assertThat(documents.write(wanted)).isEqualTo(List.of());
  }

  @Test
  void whatIsNoFolderOrNoTextIsRefused() throws Exception {
    assertThatThrownBy(() -> new DocumentFolder(folder.resolve("none")).read())
        .isInstanceOf(Refused.class)
        .hasMessageContaining("no folder");
    Files.write(folder.resolve("alarms.yaml"), new byte[] {(byte) 0xff, (byte) 0xfe, 0});
    assertThatThrownBy(() -> new DocumentFolder(folder).read())
        .isInstanceOf(Refused.class)
        .hasMessageContaining("UTF-8");
  }

  @Test
  void linesThatCameAndWentAreCounted() {
    assertThat(Paths.lines("a\nb\n", "b\nc\nd\n"))
        .containsExactly("2 lines added, 1 line taken out");
    assertThat(Paths.lines("a\nb\n", "b\na\n")).containsExactly("lines moved");
  }
}
