package org.ysthmos.app.secret;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.time.Instant;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.time.AppClock;

/**
 * Keeps secrets encrypted with AES-256-GCM, each with its own nonce and bound to its name. The key
 * stands in the data folder, readable by its owner alone, apart from the database file.
 */
@Component
public class SecretVault {

  private static final int NONCE_BYTES = 12;
  private static final int TAG_BITS = 128;
  private static final int KEY_BYTES = 32;

  private final SecretMapper mapper;
  private final SecretKeySpec key;
  private final SecureRandom random = new SecureRandom();
  private final Map<String, Kept> opened = new ConcurrentHashMap<>();
  private final AppClock clock;

  /**
   * A secret and how old it is.
   *
   * @param since when it was kept in place of another; empty if that was not noted
   * @param ends when it ends, if it says so of itself
   */
  private record Kept(String secret, Optional<Instant> since, Optional<Instant> ends) {}

  SecretVault(SecretMapper mapper, AppClock clock, Settings settings) {
    this.mapper = mapper;
    this.clock = clock;
    this.key = new SecretKeySpec(key(settings.data().resolve("secret.key")), "AES");
  }

  private byte[] key(Path file) {
    try {
      if (Files.exists(file)) {
        byte[] bytes = Files.readAllBytes(file);
        if (bytes.length != KEY_BYTES) {
          throw new IllegalStateException(
              file + " is not the key it should be; put back the one that was there");
        }
        return bytes;
      }
      byte[] fresh = new byte[KEY_BYTES];
      random.nextBytes(fresh);
      Files.createDirectories(file.toAbsolutePath().getParent());
      var ownerOnly =
          PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------"));
      Files.createFile(file, ownerOnly);
      Files.write(file, fresh);
      return fresh;
    } catch (IOException e) {
      throw new UncheckedIOException("cannot read or write " + file, e);
    }
  }

  /** Keeps a secret in place of the one of that name; the same once more changes nothing. */
  public void keep(String name, String secret) {
    if (find(name).equals(Optional.of(secret))) {
      return;
    }
    byte[] nonce = new byte[NONCE_BYTES];
    random.nextBytes(nonce);
    byte[] sealed = run(Cipher.ENCRYPT_MODE, name, nonce, secret.getBytes(StandardCharsets.UTF_8));
    Instant now = clock.instant();
    mapper.keep(
        name,
        ByteBuffer.allocate(nonce.length + sealed.length).put(nonce).put(sealed).array(),
        now);
    opened.put(name, new Kept(secret, Optional.of(now), TokenEnd.of(secret)));
  }

  public Optional<String> find(String name) {
    return kept(name).map(Kept::secret);
  }

  /** When a secret was kept in place of another; empty if there is none or that was not noted. */
  public Optional<Instant> since(String name) {
    return kept(name).flatMap(Kept::since);
  }

  /** When a secret ends by its own words; empty if there is none or it does not say. */
  public Optional<Instant> ends(String name) {
    return kept(name).flatMap(Kept::ends);
  }

  private Optional<Kept> kept(String name) {
    return Optional.ofNullable(
        opened.computeIfAbsent(
            name,
            key -> Optional.ofNullable(mapper.find(key)).map(row -> open(key, row)).orElse(null)));
  }

  private Kept open(String name, SecretMapper.SecretRow row) {
    byte[] kept = row.sealed();
    byte[] nonce = Arrays.copyOf(kept, NONCE_BYTES);
    byte[] sealed = Arrays.copyOfRange(kept, NONCE_BYTES, kept.length);
    byte[] open = run(Cipher.DECRYPT_MODE, name, nonce, sealed);
    String secret = new String(open, StandardCharsets.UTF_8);
    return new Kept(secret, Optional.ofNullable(row.keptAt()), TokenEnd.of(secret));
  }

  private byte[] run(int mode, String name, byte[] nonce, byte[] input) {
    try {
      Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
      cipher.init(mode, key, new GCMParameterSpec(TAG_BITS, nonce));
      cipher.updateAAD(name.getBytes(StandardCharsets.UTF_8));
      return cipher.doFinal(input);
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(
          "the secret “" + name + "” cannot be opened with the key in the data folder", e);
    }
  }
}
