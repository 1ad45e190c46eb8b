package org.ysthmos.adapters.connect;

import java.nio.charset.StandardCharsets;
import java.security.cert.CertificateEncodingException;
import java.security.cert.CertificateException;
import java.security.cert.CertificateParsingException;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.adapters.http.HttpCaller;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.adapters.system.Trust;

/**
 * Looks at the certificates that a system shows, before any of them is trusted. Nothing is said to
 * it but what begins TLS.
 */
public final class CertificateLook {

  private static final Base64.Encoder LINES =
      Base64.getMimeEncoder(64, "\n".getBytes(StandardCharsets.US_ASCII));

  private CertificateLook() {}

  /**
   * One certificate.
   *
   * @param names the hosts that it is made out for
   * @param digest SHA-256, in pairs of hexadecimal digits
   * @param pem the certificate as PEM has it (RFC 7468)
   * @param signsOthers whether it is one of an authority (RFC 5280 section 4.2.1.9)
   */
  public record Shown(
      String subject,
      String issuer,
      List<String> names,
      Instant from,
      Instant until,
      String digest,
      String pem,
      boolean signsOthers) {}

  /**
   * What a look came to.
   *
   * @param trusted whether the system can be connected to as its document stands
   * @param problem why not; empty if it can
   * @param certificates its own first, then who vouches for it; none if no TLS is spoken
   */
  public record Looked(boolean trusted, String problem, List<Shown> certificates) {}

  /** Connects as the document says, and once more to see what is shown. */
  public static Looked at(SystemDescription system, Surroundings surroundings) {
    Optional<String> problem =
        connect(system, surroundings).entrySet().stream()
            .map(entry -> inWords(entry.getKey(), entry.getValue()))
            .findFirst();
    List<X509Certificate> chain = new ArrayList<>();
    // That it is not connected to so is meant.
    Map<String, String> unused =
        connect(system.trusting(new Trust.Look(chain::addAll)), surroundings);
    return new Looked(
        problem.isEmpty(),
        problem.orElse(""),
        chain.stream().distinct().map(CertificateLook::shown).toList());
  }

  /** What Java says of it, as people say it; what is not known stays as it is. */
  private static String inWords(String which, String said) {
    String at = which.equals("address") ? "" : which + ": ";
    if (said.contains("PKIX path") || said.contains("trustAnchors")) {
      return at + "nobody who is trusted vouches for its certificate";
    }
    if (said.contains("NotAfter") || said.contains("expired")) {
      return at + "its certificate is not good any more";
    }
    if (said.contains("No name matching")
        || said.contains("subject alternative")
        || said.contains("PeerUnverified")) {
      return at + "its certificate is made out for another name";
    }
    return at + said;
  }

  private static Map<String, String> connect(SystemDescription system, Surroundings surroundings) {
    return String.valueOf(system.address().getScheme()).startsWith("http")
        ? HttpCaller.connect(system, surroundings)
        : system.protocol().connect(system, surroundings);
  }

  private static Shown shown(X509Certificate certificate) {
    try {
      return new Shown(
          certificate.getSubjectX500Principal().getName(),
          certificate.getIssuerX500Principal().getName(),
          names(certificate),
          certificate.getNotBefore().toInstant(),
          certificate.getNotAfter().toInstant(),
          Trust.shown(Trust.digest(certificate)),
          pem(certificate),
          certificate.getBasicConstraints() >= 0);
    } catch (CertificateException e) {
      throw new IllegalStateException("a certificate that was shown can be written", e);
    }
  }

  private static String pem(X509Certificate certificate) throws CertificateEncodingException {
    return "-----BEGIN CERTIFICATE-----\n"
        + LINES.encodeToString(certificate.getEncoded())
        + "\n-----END CERTIFICATE-----\n";
  }

  /** DNS names and addresses among the alternative names (RFC 5280 section 4.2.1.6). */
  private static List<String> names(X509Certificate certificate)
      throws CertificateParsingException {
    Collection<List<?>> names = certificate.getSubjectAlternativeNames();
    return names == null
        ? List.of()
        : names.stream()
            .filter(name -> name.getFirst().equals(2) || name.getFirst().equals(7))
            .map(name -> String.valueOf(name.getLast()))
            .toList();
  }
}
