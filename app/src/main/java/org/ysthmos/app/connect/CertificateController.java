package org.ysthmos.app.connect;

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

  private final Connecting connecting;

  CertificateController(Connecting connecting) {
    this.connecting = connecting;
  }

  @PostMapping(path = "/api/connect/certificates", produces = MediaType.APPLICATION_JSON_VALUE)
  CertificateLook.Looked look(@RequestBody LookWish wish) {
    return connecting.look(wish.document());
  }
}
