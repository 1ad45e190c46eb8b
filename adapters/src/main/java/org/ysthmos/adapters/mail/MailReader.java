package org.ysthmos.adapters.mail;

import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import java.net.URI;
import java.util.List;
import java.util.Optional;
import org.ysthmos.adapters.system.Collected;
import org.ysthmos.adapters.system.Parts;
import org.ysthmos.adapters.system.PollSpec;
import org.ysthmos.adapters.system.ProtocolReader;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.document.DocumentNode;

/**
 * Reads what the document of a mail account says: {@code imap} or {@code imaps} is its address, and
 * a collection has {@code folders}, or {@code send} for letters that go by {@code send-address}.
 */
public final class MailReader implements ProtocolReader {

  @Override
  public List<String> keys() {
    return List.of("send-address");
  }

  @Override
  public SystemDescription.Protocol protocol(DocumentNode root) {
    root.need("sign-in").need("basic");
    return new MailProtocol(root.get("send-address").map(MailReader::server));
  }

  @Override
  public SystemCollection collection(Collected of, DocumentNode node) {
    return node.get("send").isPresent() ? letters(of, node) : folders(of, node);
  }

  private static FolderCollection folders(Collected of, DocumentNode node) {
    node.only("name", "record", "folders", "every", "shown-in");
    List<String> folders = Parts.texts(node.need("folders"));
    if (folders.isEmpty()) {
      throw node.need("folders").refuse("name at least one folder, for example INBOX");
    }
    var fields = MailShapes.read(node.get("shown-in").map(Parts::zone));
    return new FolderCollection(
        Parts.shape(of, node, "mail", "/subject", "", fields, fields),
        List.copyOf(folders),
        node.get("every").map(Parts::duration).orElse(PollSpec.USUAL_INTERVAL));
  }

  private static LetterCollection letters(Collected of, DocumentNode node) {
    node.only("name", "record", "send");
    DocumentNode send = node.need("send").only("from", "keep-in");
    return new LetterCollection(
        Parts.shape(of, node, "letter", "subject", "", MailShapes.sent(), List.of()),
        from(send.need("from")),
        send.get("keep-in").map(DocumentNode::text));
  }

  private static URI server(DocumentNode node) {
    try {
      URI address = URI.create(node.text());
      if (List.of("smtp", "smtps").contains(String.valueOf(address.getScheme()))
          && address.getHost() != null) {
        return address;
      }
    } catch (IllegalArgumentException notAnAddress) {
      throw node.refuse("“" + node.text() + "” is no address: " + notAnAddress.getMessage());
    }
    throw node.refuse("letters are handed in at smtps://host or smtp://host");
  }

  private static InternetAddress from(DocumentNode node) {
    try {
      InternetAddress from = new InternetAddress(node.text(), true);
      return Optional.ofNullable(from.getAddress())
          .filter(address -> address.contains("@"))
          .map(address -> from)
          .orElseThrow(() -> node.refuse("a mail address has an @"));
    } catch (AddressException e) {
      throw node.refuse("“" + node.text() + "” is no mail address: " + e.getMessage());
    }
  }
}
