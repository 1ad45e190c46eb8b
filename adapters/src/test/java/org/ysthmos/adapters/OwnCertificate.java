package org.ysthmos.adapters;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.Key;
import java.security.KeyStore;
import java.util.Base64;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;

/** A certificate for localhost that nobody but itself vouches for, made for one test. */
public final class OwnCertificate {

  private static final String PASSWORD = "secret";

  private final KeyStore store;

  private OwnCertificate(KeyStore store) {
    this.store = store;
  }

  /**
   * @param folder where its store is kept
   */
  public static OwnCertificate in(Path folder) throws Exception {
    Path keys = folder.resolve("keys.p12");
    Process made =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "keytool").toString(),
                "-genkeypair",
                "-alias",
                "own",
                "-keyalg",
                "RSA",
                "-dname",
                "CN=localhost",
                "-ext",
                "san=dns:localhost",
                "-storetype",
                "PKCS12",
                "-keystore",
                keys.toString(),
                "-storepass",
                PASSWORD)
            .redirectErrorStream(true)
            .start();
    String said = new String(made.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    if (made.waitFor() != 0) {
      throw new IOException("no certificate was made: " + said);
    }
    KeyStore store = KeyStore.getInstance("PKCS12");
    try (InputStream in = Files.newInputStream(keys)) {
      store.load(in, PASSWORD.toCharArray());
    }
    return new OwnCertificate(store);
  }

  /** With which a server in this process shows it. */
  public SSLContext context() throws Exception {
    KeyManagerFactory managers =
        KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
    managers.init(store, PASSWORD.toCharArray());
    SSLContext context = SSLContext.getInstance("TLS");
    context.init(managers.getKeyManagers(), null, null);
    return context;
  }

  /** The certificate as PEM has it (RFC 7468). */
  public String pem() throws Exception {
    return pem("CERTIFICATE", store.getCertificate("own").getEncoded());
  }

  /** Writes the certificate and its key for a server that is started, which alone may read it. */
  public void write(Path certificate, Path key) throws Exception {
    Files.writeString(certificate, pem());
    Key secret = store.getKey("own", PASSWORD.toCharArray());
    Files.writeString(key, pem("PRIVATE KEY", secret.getEncoded()));
    Files.setPosixFilePermissions(key, PosixFilePermissions.fromString("rw-------"));
  }

  private static String pem(String of, byte[] bytes) {
    String lines = Base64.getMimeEncoder(64, new byte[] {'\n'}).encodeToString(bytes);
    return "-----BEGIN %1$s-----\n%2$s\n-----END %1$s-----\n".formatted(of, lines);
  }
}
