package org.ysthmos.adapters.system;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import org.ysthmos.core.document.DocumentNode;

/** How a call says who makes it. Secrets are named here and kept elsewhere. */
public sealed interface SignIn {

  /** The name of the secret. */
  String secret();

  /** The header that carries it, where calls have headers. */
  default String header() {
    return "Authorization";
  }

  /**
   * The value of the header.
   *
   * @param kept the secret itself
   */
  String value(String kept);

  /** A bearer token (RFC 6750 section 2.1). */
  record Bearer(String secret) implements SignIn {
    @Override
    public String value(String kept) {
      return "Bearer " + kept;
    }
  }

  /** A user and a password (RFC 7617), in UTF-8. */
  record Basic(String user, String secret) implements SignIn {
    @Override
    public String value(String kept) {
      byte[] both = (user + ":" + kept).getBytes(StandardCharsets.UTF_8);
      return "Basic " + Base64.getEncoder().encodeToString(both);
    }
  }

  /** A key in a header of the system's own. */
  record Key(String header, String secret) implements SignIn {
    @Override
    public String value(String kept) {
      return kept;
    }
  }

  /** Reads it from a system document. */
  static SignIn read(DocumentNode node) {
    node.only("bearer", "basic", "header");
    if (node.get("basic").isPresent()) {
      DocumentNode basic = node.need("basic").only("user", "secret");
      DocumentNode user = basic.need("user");
      if (user.text().contains(":")) {
        throw user.refuse("a user has no colon (RFC 7617 section 2)");
      }
      return new Basic(user.text(), basic.need("secret").text());
    }
    if (node.get("header").isPresent()) {
      DocumentNode header = node.need("header").only("name", "secret");
      return new Key(header.need("name").text(), header.need("secret").text());
    }
    return new Bearer(node.need("bearer").only("secret").need("secret").text());
  }
}
