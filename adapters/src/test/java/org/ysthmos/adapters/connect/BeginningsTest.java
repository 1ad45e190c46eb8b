package org.ysthmos.adapters.connect;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.ysthmos.adapters.system.SystemDescription;

/** Every document that is shipped, or offered on the screen to begin with, can be read. */
class BeginningsTest {

  @Test
  void documentsOfferedToBeginWithCanBeUsed() throws Exception {
    Path file = Path.of("..", "web", "src", "features", "systems", "beginnings.ts");
    Matcher documents = Pattern.compile("document: `([^`]*)`").matcher(Files.readString(file));
    List<String> ids =
        documents.results().map(found -> SystemReader.read(found.group(1)).id()).toList();
    assertThat(ids).containsExactly("post", "library", "rounds", "market", "ledger");
  }

  @Test
  void documentsOfTheDemoCanBeUsed() throws Exception {
    try (Stream<Path> files = Files.list(Path.of("..", "demo", "systems"))) {
      for (Path file : files.toList()) {
        SystemDescription system = SystemReader.read(Files.readString(file));
        assertThat(file.getFileName()).hasToString(system.id() + ".yaml");
        assertThat(system.collections()).isNotEmpty();
      }
    }
  }
}
