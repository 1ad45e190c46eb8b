package org.ysthmos.app.secret;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.util.unit.DataSize;
import org.ysthmos.app.Settings;
import org.ysthmos.app.time.AppClock;

class SecretVaultIT {

  @TempDir Path data;
  private final Rows rows = new Rows();
  private final AppClock clock = mock();
  private Instant now = Instant.parse("2026-11-02T08:00:00Z");

  /** Rows in memory, as the database keeps them. */
  private static final class Rows implements SecretMapper {
    private final Map<String, byte[]> kept = new HashMap<>();
    private final Map<String, Instant> since = new HashMap<>();

    @Override
    public void keep(String name, byte[] sealed, Instant keptAt) {
      kept.put(name, sealed);
      since.put(name, keptAt);
    }

    @Override
    public SecretRow find(String name) {
      return kept.containsKey(name) ? new SecretRow(kept.get(name), since.get(name)) : null;
    }
  }

  private SecretVault vault() {
    when(clock.instant()).thenReturn(now);
    return new SecretVault(
        rows,
        clock,
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

  /** Each start keeps the secrets of its setup once more. */
  @Test
  void isAsOldAsWhatItSays() {
    Instant first = now;
    vault().keep("token", "one");
    now = now.plusSeconds(60);
    vault().keep("token", "one");
    assertThat(vault().since("token")).contains(first);
    vault().keep("token", "two");
    assertThat(vault().since("token")).contains(now);
    assertThat(vault().since("other")).isEmpty();
  }

  /** The example of RFC 7519 section 3.1: it ends at 1300819380. */
  @Test
  void saysWhenATokenEndsByItsOwnWords() {
    vault()
        .keep(
            "token",
            "eyJ0eXAiOiJKV1QiLA0KICJhbGciOiJIUzI1NiJ9"
                + ".eyJpc3MiOiJqb2UiLA0KICJleHAiOjEzMDA4MTkzODAsDQogImh0dHA6Ly9leGFtcGxlLmNvbS9pc19yb290Ijp0cnVlfQ"
                + ".dBjftJeZ4CVP-mB92K27uhbUJU1p1r_wW1gFWFOEjXk");
    assertThat(vault().ends("token")).contains(Instant.parse("2011-03-22T18:43:00Z"));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "secret",
        "a.b.c",
        "v1.0.3",
        // {"exp":"soon"}, {"exp":1e99}, {"exp":-1} and [].
        "e30.eyJleHAiOiJzb29uIn0.",
        "e30.eyJleHAiOjFlOTl9.",
        "e30.eyJleHAiOi0xfQ.",
        "e30.W10."
      })
  void whatIsNoSuchTokenSaysNothing(String secret) {
    vault().keep("token", secret);
    assertThat(vault().ends("token")).isEmpty();
    assertThat(vault().find("token")).contains(secret);
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
