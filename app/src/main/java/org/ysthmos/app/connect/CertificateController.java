package org.ysthmos.app.connect;

import java.time.Instant;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.connect.CertificateLook;

/** What a system shows of itself, before it is trusted. */
@RestController
class CertificateController {

  /** A document as it is typed. */
  record LookWish(String document) {}

  /** See {@link CertificateLook.Shown}. */
  record CertificateView(
      String subject,
      String issuer,
      List<String> names,
      Instant from,
      Instant until,
      String digest,
      String pem,
      boolean signsOthers) {}

  /**
   * @param trusted whether it can be connected to as its document stands
   * @param problem why not; empty if it can
   * @param certificates its own first, then who vouches for it
   */
  record CertificatesView(boolean trusted, String problem, List<CertificateView> certificates) {}

  private final Connecting connecting;

  CertificateController(Connecting connecting) {
    this.connecting = connecting;
  }

  @PostMapping(path = "/api/connect/certificates", produces = MediaType.APPLICATION_JSON_VALUE)
  CertificatesView look(@RequestBody LookWish wish) {
    CertificateLook.Looked looked = connecting.look(wish.document());
    return new CertificatesView(
        looked.trusted(),
        looked.problem(),
        looked.certificates().stream()
            .map(
                one ->
                    new CertificateView(
                        one.subject(),
                        one.issuer(),
                        one.names(),
                        one.from(),
                        one.until(),
                        one.digest(),
                        one.pem(),
                        one.signsOthers()))
            .toList());
  }
}
