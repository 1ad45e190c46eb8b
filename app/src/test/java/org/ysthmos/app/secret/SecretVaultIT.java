package org.ysthmos.app.secret;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.util.unit.DataSize;
import org.ysthmos.app.Settings;

class SecretVaultIT {

  @TempDir Path data;
  private final Rows rows = new Rows();

  /** Rows in memory, as the database keeps them. */
  private static final class Rows implements SecretMapper {
    private final Map<String, byte[]> kept = new HashMap<>();

    @Override
    public void keep(String name, byte[] sealed) {
      kept.put(name, sealed);
    }

    @Override
    public SecretRow find(String name) {
      return kept.containsKey(name) ? new SecretRow(kept.get(name)) : null;
    }
  }

  private SecretVault vault() {
    return new SecretVault(
        rows,
        new Settings(
            8470,
            data,
            null,
            null,
            ZoneId.of("Europe/Lisbon"),
            List.of(),
            URI.create("http://localhost"),
            false,
            Duration.ZERO,
            new Settings.Intake(1000),
            new Settings.Work(Duration.ofSeconds(10), Duration.ofSeconds(10), 8, 8),
            new Settings.Retry(
                Duration.ofSeconds(1),
                Duration.ofMinutes(5),
                3,
                List.of(Duration.ofSeconds(2)),
                5,
                6),
            false,
            DataSize.ofMegabytes(1),
            new Settings.Calls(List.of(), true)));
  }

  @Test
  void keepsAcrossRestartsAndNeverInTheClear() {
    vault().keep("token", "very secret");
    assertThat(new String(rows.kept.get("token"), StandardCharsets.ISO_8859_1))
        .doesNotContain("secret");
    assertThat(vault().find("token")).contains("very secret");
    assertThat(vault().find("other")).isEmpty();
  }

  @Test
  void sameSecretTwiceIsSealedDifferently() {
    SecretVault vault = vault();
    vault.keep("a", "same");
    vault.keep("b", "same");
    assertThat(rows.kept.get("a")).isNotEqualTo(rows.kept.get("b"));
  }

  @Test
  void secretPutUnderAnotherNameOrChangedIsNotOpened() {
    vault().keep("a", "one");
    rows.kept.put("b", rows.kept.get("a"));
    assertThatThrownBy(() -> vault().find("b")).hasMessageContaining("“b” cannot be opened");
    byte[] changed = rows.kept.get("a").clone();
    changed[changed.length - 1] ^= 1;
    rows.kept.put("a", changed);
    assertThatThrownBy(() -> vault().find("a")).hasMessageContaining("cannot be opened");
  }

  @Test
  void keyIsReadableByItsOwnerAlone() throws Exception {
    vault();
    assertThat(
            PosixFilePermissions.toString(
                Files.getPosixFilePermissions(data.resolve("secret.key"))))
        .isEqualTo("rw-------");
  }

  @Test
  void keyThatIsNoKeyIsRefused() throws Exception {
    Files.writeString(data.resolve("secret.key"), "short");
    assertThatThrownBy(this::vault).hasMessageContaining("is not the key it should be");
  }
}
