package org.ysthmos.adapters.system;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.cert.Certificate;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManager;
import javax.net.ssl.TrustManagerFactory;
import org.ysthmos.core.document.DocumentNode;

/** By what a system shows, over TLS, that it is who it should be. */
public sealed interface Trust {

  /** What a connection is made with. */
  SSLContext context();

  /** Whether its certificate must also be made out for the host that is called (RFC 9525). */
  default boolean asksForTheName() {
    return true;
  }

  /** A certificate that one of the usual authorities vouches for, which every Java knows. */
  static Trust usual() {
    return new Usual();
  }

  /** See {@link #usual}. */
  record Usual() implements Trust {
    @Override
    public SSLContext context() {
      try {
        return SSLContext.getDefault();
      } catch (NoSuchAlgorithmException e) {
        throw new IllegalStateException("every Java speaks TLS", e);
      }
    }
  }

  /**
   * A certificate that these authorities vouch for, and no others.
   *
   * @param certificates of the authorities
   */
  record Authorities(List<X509Certificate> certificates) implements Trust {
    public Authorities {
      certificates = List.copyOf(certificates);
    }

    @Override
    public SSLContext context() {
      try {
        KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
        store.load(null, null);
        for (int i = 0; i < certificates.size(); i++) {
          store.setCertificateEntry("authority-" + i, certificates.get(i));
        }
        TrustManagerFactory factory =
            TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        factory.init(store);
        return Trust.context(factory.getTrustManagers());
      } catch (GeneralSecurityException | IOException e) {
        throw new IllegalStateException("a store in memory takes certificates", e);
      }
    }
  }

  /**
   * One certificate alone, known by its digest, whoever signed it and whatever name it has.
   *
   * @param digest SHA-256 of the certificate, in lower-case hexadecimal digits
   */
  record Pinned(String digest) implements Trust {

    @Override
    public boolean asksForTheName() {
      return false;
    }

    @Override
    public SSLContext context() {
      return Trust.context(
          new CertificateJudge(
              chain -> {
                if (!Trust.digest(chain[0]).equals(digest)) {
                  throw new CertificateException(
                      "it shows another certificate than the one that is trusted, "
                          + shown(Trust.digest(chain[0])));
                }
                chain[0].checkValidity();
              }));
    }
  }

  /** Trusts nobody, and tells what was shown: for a look at it before it is trusted. */
  record Look(Consumer<List<X509Certificate>> shown) implements Trust {
    @Override
    public boolean asksForTheName() {
      return false;
    }

    @Override
    public SSLContext context() {
      return Trust.context(
          new CertificateJudge(
              chain -> {
                shown.accept(List.of(chain));
                throw new CertificateException("it was only looked at");
              }));
    }
  }

  /**
   * Reads {@code certificate}, a SHA-256 digest, or {@code authority}, certificates as PEM has them
   * (RFC 7468).
   */
  static Trust read(DocumentNode node) {
    node.only("certificate", "authority");
    if (node.get("certificate").isPresent() == node.get("authority").isPresent()) {
      throw node.refuse("say either the certificate that is trusted or the authority");
    }
    return node.get("certificate")
        .<Trust>map(Trust::pinned)
        .orElseGet(() -> authorities(node.need("authority")));
  }

  private static Pinned pinned(DocumentNode node) {
    String hex = node.text().toLowerCase(Locale.ROOT).replaceAll("[:\\s]|^sha-?256", "");
    if (!hex.matches("[0-9a-f]{64}")) {
      throw node.refuse("write the SHA-256 digest of the certificate: 64 hexadecimal digits");
    }
    return new Pinned(hex);
  }

  private static Authorities authorities(DocumentNode node) {
    List<X509Certificate> certificates = new ArrayList<>();
    try {
      byte[] pem = node.text().getBytes(StandardCharsets.US_ASCII);
      for (Certificate one :
          CertificateFactory.getInstance("X.509")
              .generateCertificates(new ByteArrayInputStream(pem))) {
        certificates.add((X509Certificate) one);
      }
    } catch (CertificateException e) {
      throw node.refuse("this is no certificate as PEM has it: " + e.getMessage());
    }
    if (certificates.isEmpty()) {
      throw node.refuse("no certificate stands here; it begins with -----BEGIN CERTIFICATE-----");
    }
    return new Authorities(certificates);
  }

  /** SHA-256 of a certificate, in lower-case hexadecimal digits. */
  static String digest(X509Certificate certificate) throws CertificateException {
    try {
      byte[] digest = MessageDigest.getInstance("SHA-256").digest(certificate.getEncoded());
      return HexFormat.of().formatHex(digest);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java platform has SHA-256", e);
    }
  }

  /** A digest in pairs of digits, as people compare them. */
  static String shown(String digest) {
    return digest.toUpperCase(Locale.ROOT).replaceAll("(..)(?!$)", "$1:");
  }

  private static SSLContext context(TrustManager... managers) {
    try {
      SSLContext context = SSLContext.getInstance("TLS");
      context.init(null, managers, null);
      return context;
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("every Java speaks TLS", e);
    }
  }
}
