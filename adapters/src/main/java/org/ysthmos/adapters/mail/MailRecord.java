package org.ysthmos.adapters.mail;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import jakarta.mail.Address;
import jakarta.mail.Flags;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MailDateFormat;
import jakarta.mail.internet.MimeUtility;
import java.io.IOException;
import java.io.UnsupportedEncodingException;
import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.Date;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.text.Controls;

/** A mail as a record; see {@link MailShapes#read}. */
final class MailRecord {

  private static final int LONGEST_HEADER = 2_000;
  private static final int LONGEST_ID = 200;
  private static final int MOST_ADDRESSES = 100;

  private MailRecord() {}

  /**
   * @param server the address of the account, for the links
   * @param folder the folder it stands in
   */
  static ObjectNode of(Message mail, URI server, String folder, long validity, long uid)
      throws MessagingException, IOException {
    ObjectNode record = JsonNodeFactory.instance.objectNode();
    record.put("id", id(mail));
    record.put("folder", folder);
    record.put("subject", kept(subject(mail)));
    List<InternetAddress> from = addresses(mail, "From");
    record.put("from", from.isEmpty() ? "" : address(from.getFirst()));
    record.put("fromName", from.isEmpty() ? "" : kept(from.getFirst().getPersonal()));
    List<InternetAddress> replies = addresses(mail, "Reply-To");
    record.put(
        "replyTo", replies.isEmpty() ? record.path("from").asText() : address(replies.getFirst()));
    record.set("to", list(addresses(mail, "To")));
    record.set("cc", list(addresses(mail, "Cc")));
    sent(mail).ifPresent(at -> record.put("sentAt", at.toString()));
    arrived(mail).ifPresent(at -> record.put("arrivedAt", at.toString()));
    record.put("flagged", mail.isSet(Flags.Flag.FLAGGED));
    link(mail).ifPresent(link -> record.put("link", link));
    MailContent.put(mail, imapUrl(server, folder, validity, uid), record);
    return record;
  }

  /** When the server took it in (IMAP's INTERNALDATE). */
  static Optional<Instant> arrived(Message mail) throws MessagingException {
    return moment(mail.getReceivedDate());
  }

  private static Optional<Instant> moment(@Nullable Date date) {
    return Optional.ofNullable(date).map(Date::toInstant);
  }

  /**
   * The Message-ID without its brackets (RFC 5322 section 3.6.4), which stays the same in whatever
   * folder the mail stands and whatever its UID. A mail without one is known by a digest of what
   * stays the same too.
   */
  static String id(Message mail) throws MessagingException {
    String id = header(mail, "Message-ID").strip().replaceAll("^<|>$", "");
    if (!id.isEmpty() && id.length() <= LONGEST_ID) {
      return id;
    }
    String[] received = mail.getHeader("Received");
    String last = received == null ? "" : received[received.length - 1];
    return digest(
        id
            + "\n"
            + sent(mail).map(Date::from).orElse(null)
            + "\n"
            + (mail.getHeader("Subject") == null ? null : subject(mail))
            + "\n"
            + last
            + "\n"
            + addresses(mail, "From"));
  }

  /**
   * Headers are read as they stand in the mail. What a server makes of them (IMAP's ENVELOPE)
   * cannot always be read: an address without a domain, say.
   */
  private static String header(Message mail, String name) throws MessagingException {
    String[] written = mail.getHeader(name);
    return written == null ? "" : MimeUtility.unfold(written[0]);
  }

  /** Encoded words (RFC 2047) that cannot be decoded stay as they are written. */
  static String subject(Message mail) throws MessagingException {
    String written = header(mail, "Subject");
    try {
      return MimeUtility.decodeText(written);
    } catch (UnsupportedEncodingException e) {
      return written;
    }
  }

  private static Optional<Instant> sent(Message mail) throws MessagingException {
    String written = header(mail, "Date");
    try {
      return written.isEmpty() ? Optional.empty() : moment(new MailDateFormat().parse(written));
    } catch (java.text.ParseException e) {
      return Optional.empty();
    }
  }

  private static String digest(String text) {
    try {
      byte[] digest =
          MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
      return "no-id-" + HexFormat.of().formatHex(digest, 0, 16);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }

  /** A link by which mail programs find the mail (RFC 2392). */
  private static Optional<String> link(Message mail) throws MessagingException {
    String id = id(mail);
    return id.contains("@")
        ? Optional.of("mid:" + encoded(id).replace("%40", "@"))
        : Optional.empty();
  }

  /** RFC 5092 section 6. */
  private static String imapUrl(URI server, String folder, long validity, long uid) {
    String port = server.getPort() < 0 ? "" : ":" + server.getPort();
    return "imap://%s%s/%s;UIDVALIDITY=%d/;UID=%d"
        .formatted(server.getHost(), port, encoded(folder).replace("%2F", "/"), validity, uid);
  }

  private static String encoded(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
  }

  /** Addresses that cannot be read are kept as they are written. */
  private static List<InternetAddress> addresses(Message mail, String header)
      throws MessagingException {
    String[] written = mail.getHeader(header);
    if (written == null) {
      return List.of();
    }
    String all = String.join(", ", written);
    try {
      return List.of(InternetAddress.parseHeader(all, false));
    } catch (AddressException e) {
      InternetAddress asItIs = new InternetAddress();
      asItIs.setAddress(all);
      return List.of(asItIs);
    }
  }

  /** The domain of an address has no case (RFC 5321 section 2.4); the part before it may have. */
  private static String address(Address address) {
    String written =
        address instanceof InternetAddress internet
            ? String.valueOf(internet.getAddress())
            : address.toString();
    int at = written.lastIndexOf('@');
    return kept(
        at < 0
            ? written
            : written.substring(0, at) + written.substring(at).toLowerCase(Locale.ROOT));
  }

  private static ArrayNode list(List<InternetAddress> addresses) {
    ArrayNode list = JsonNodeFactory.instance.arrayNode();
    addresses.stream().limit(MOST_ADDRESSES).map(MailRecord::address).forEach(list::add);
    return list;
  }

  private static String kept(@Nullable String text) {
    String known = text == null ? "" : Controls.without(text);
    return known.length() <= LONGEST_HEADER ? known : known.substring(0, LONGEST_HEADER);
  }
}
