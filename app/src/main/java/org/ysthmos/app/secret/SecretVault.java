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
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;

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
  private final Map<String, String> opened = new ConcurrentHashMap<>();

  SecretVault(SecretMapper mapper, Settings settings) {
    this.mapper = mapper;
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

  public void keep(String name, String secret) {
    byte[] nonce = new byte[NONCE_BYTES];
    random.nextBytes(nonce);
    byte[] sealed = run(Cipher.ENCRYPT_MODE, name, nonce, secret.getBytes(StandardCharsets.UTF_8));
    mapper.keep(
        name, ByteBuffer.allocate(nonce.length + sealed.length).put(nonce).put(sealed).array());
    opened.put(name, secret);
  }

  public Optional<String> find(String name) {
    return Optional.ofNullable(
        opened.computeIfAbsent(
            name,
            key -> Optional.ofNullable(mapper.find(key)).map(row -> open(key, row)).orElse(null)));
  }

  private String open(String name, SecretMapper.SecretRow row) {
    byte[] kept = row.sealed();
    byte[] nonce = java.util.Arrays.copyOf(kept, NONCE_BYTES);
    byte[] sealed = java.util.Arrays.copyOfRange(kept, NONCE_BYTES, kept.length);
    byte[] open = run(Cipher.DECRYPT_MODE, name, nonce, sealed);
    return new String(open, StandardCharsets.UTF_8);
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
