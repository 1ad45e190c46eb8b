package org.ysthmos.app.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class CommandLineTest {

  private static CommandLine line(String... args) {
    return CommandLine.of(List.of(args), "Usage: so", List.of("--as"), List.of("--yes"));
  }

  @Test
  void oneIsNamedAndOptionsStandAnywhere() {
    CommandLine line = line("--data", "/d", "folder", "--yes", "--as", "x", "--port", "9");
    assertThat(line.named()).isEqualTo(Path.of("folder").toAbsolutePath());
    assertThat(line.data()).isEqualTo(Path.of("/d"));
    assertThat(line.port()).hasValue(9);
    assertThat(line.has("--yes")).isTrue();
    assertThat(line.value("--as")).contains("x");
    assertThat(line("f").value("--as")).isEqualTo(Optional.empty());
    assertThat(line("f").port()).isEmpty();
  }

  @Test
  void whatIsWrongIsRefusedWithTheNearest() {
    assertThatThrownBy(() -> line("--dat", "x"))
        .isInstanceOf(Refused.class)
        .hasMessageContaining("--data")
        .hasMessageContaining("Usage: so");
    assertThatThrownBy(CommandLineTest::line).hasMessageContaining("Name one");
    assertThatThrownBy(() -> line("a", "b")).hasMessageContaining("[a, b]");
    assertThatThrownBy(() -> line("a", "--as")).hasMessageContaining("--as says nothing");
    assertThatThrownBy(() -> line("a", "--port", "many").port()).hasMessageContaining("“many”");
  }
}
