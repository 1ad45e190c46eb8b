package org.ysthmos.adapters.system;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.adapters.system.Push.IdAt;
import org.ysthmos.adapters.system.Push.Verify;
import org.ysthmos.core.document.DocumentNode;

/** Reads what a document says of a collection's webhooks. */
public final class PushDocument {

  private PushDocument() {}

  public static Push read(DocumentNode node) {
    node.only("verify", "event", "record", "kind", "kinds", "version", "whole", "place");
    Map<String, String> kinds = new LinkedHashMap<>();
    node.need("kinds").group().forEach((theirs, ours) -> kinds.put(theirs, ours.text()));
    Verify verify = verify(node.need("verify"));
    return new Push(
        verify,
        node.get("event").map(PushDocument::idAt).orElse(usualId(verify)),
        Parts.pointer(node.need("record")),
        Parts.pointer(node.need("kind")),
        kinds,
        node.get("version").map(Parts::pointer),
        node.get("whole").map(Parts::pointer),
        node.get("place").map(Parts::pointer));
  }

  private static IdAt usualId(Verify verify) {
    return verify instanceof Verify.StandardWebhooks
        ? new IdAt.Header("webhook-id")
        : new IdAt.Nowhere();
  }

  private static IdAt idAt(DocumentNode node) {
    node.only("header", "at");
    return node.get("header")
        .<IdAt>map(header -> new IdAt.Header(header.text()))
        .orElseGet(() -> new IdAt.Body(Parts.pointer(node.need("at"))));
  }

  private static Verify verify(DocumentNode node) {
    node.only("standard-webhooks", "shared-secret", "signature", "path");
    Optional<DocumentNode> shared = node.get("shared-secret");
    if (shared.isPresent()) {
      shared.get().only("header", "secret");
      return new Verify.SharedSecret(
          shared.get().need("header").text(), shared.get().need("secret").text());
    }
    Optional<DocumentNode> signature = node.get("signature");
    if (signature.isPresent()) {
      return signature(signature.get());
    }
    Optional<DocumentNode> path = node.get("path");
    if (path.isPresent()) {
      return new Verify.PathToken(path.get().only("secret").need("secret").text());
    }
    return new Verify.StandardWebhooks(
        node.need("standard-webhooks").only("secret").need("secret").text());
  }

  private static Verify.Signature signature(DocumentNode node) {
    node.only("header", "secret", "before", "written-in", "hash");
    String written = node.get("written-in").map(DocumentNode::text).orElse("hex");
    if (!written.equals("hex") && !written.equals("base64")) {
      throw node.need("written-in").refuse("a signature is written in hex or base64");
    }
    String hash = node.get("hash").map(DocumentNode::text).orElse("sha256");
    if (!Verify.Signature.HASHES.containsKey(hash)) {
      throw node.need("hash")
          .refuse(
              "a signature is made with " + String.join(", ", Verify.Signature.HASHES.keySet()));
    }
    return new Verify.Signature(
        node.need("header").text(),
        node.need("secret").text(),
        node.get("before").map(DocumentNode::text).orElse(""),
        written.equals("hex"),
        hash);
  }
}
