package org.ysthmos.adapters.mail;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import jakarta.mail.BodyPart;
import jakarta.mail.FolderClosedException;
import jakarta.mail.MessageRemovedException;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.StoreClosedException;
import jakarta.mail.internet.ContentType;
import jakarta.mail.internet.MimeUtility;
import jakarta.mail.internet.ParseException;
import java.io.IOException;
import java.io.InputStream;
import java.net.SocketException;
import java.net.SocketTimeoutException;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.ysthmos.core.text.Controls;
import org.ysthmos.core.text.HtmlText;

/**
 * The texts and attachments of a mail (RFC 2045, RFC 2046), each read only as far as a bound
 * allows. Of alternatives that say the same, the plain and the HTML one are both kept.
 */
final class MailContent {

  /**
   * The most that is kept of the plain text, of the HTML and of all attached texts, in characters.
   */
  static final int LONGEST_TEXT = 80_000;

  private static final int MOST_ATTACHMENTS = 50;
  private static final int DEEPEST = 20;

  private final String link;
  private final StringBuilder text = new StringBuilder();
  private final StringBuilder html = new StringBuilder();
  private final ArrayNode attachments = JsonNodeFactory.instance.arrayNode();
  private final List<String> unread = new ArrayList<>();
  private int attachedText;
  private boolean cut;

  /**
   * @param link an IMAP URL of the mail (RFC 5092), to which the section of an attachment is added
   */
  private MailContent(String link) {
    this.link = link;
  }

  /** Reads a mail's content into its record. */
  static void put(Part mail, String link, ObjectNode record)
      throws MessagingException, IOException {
    MailContent content = new MailContent(link);
    content.read(mail, "", 0);
    String plain =
        content.text.isEmpty() ? HtmlText.of(content.html.toString()) : content.text.toString();
    record.put("text", plain.strip());
    record.put("html", content.html.toString());
    record.put("cut", content.cut);
    record.put("unread", String.join("; ", content.unread));
    record.set("attachments", content.attachments);
  }

  /** A part that is not written as it should be is told of, and the others are read. */
  private void read(Part part, String section, int depth) throws MessagingException, IOException {
    if (depth > DEEPEST) {
      cut = true;
      return;
    }
    try {
      PartDamage.of(part).ifPresent(damage -> unread.add(named(section) + ": " + damage));
      readPart(part, section, depth);
    } catch (FolderClosedException
        | StoreClosedException
        | MessageRemovedException
        | SocketException
        | SocketTimeoutException e) {
      throw e;
    } catch (MessagingException | IOException | RuntimeException e) {
      unread.add(named(section) + ": " + e.getMessage());
    }
  }

  private static String named(String section) {
    return section.isEmpty() ? "its text" : "part " + section;
  }

  private void readPart(Part part, String section, int depth)
      throws MessagingException, IOException {
    if (part.isMimeType("multipart/*") && part.getContent() instanceof Multipart parts) {
      for (int i = 0; i < parts.getCount(); i++) {
        BodyPart inner = parts.getBodyPart(i);
        read(inner, section.isEmpty() ? "" + (i + 1) : section + "." + (i + 1), depth + 1);
      }
      return;
    }
    boolean attached =
        Part.ATTACHMENT.equalsIgnoreCase(part.getDisposition()) || part.getFileName() != null;
    if (!attached && part.isMimeType("text/plain")) {
      append(text, part);
    } else if (!attached && part.isMimeType("text/html")) {
      append(html, part);
    } else {
      attach(part, section.isEmpty() ? "1" : section);
    }
  }

  private void append(StringBuilder to, Part part) throws MessagingException, IOException {
    if (!to.isEmpty()) {
      to.append('\n');
    }
    to.append(bounded(part, LONGEST_TEXT - to.length()));
  }

  private void attach(Part part, String section) throws MessagingException, IOException {
    if (attachments.size() == MOST_ATTACHMENTS) {
      cut = true;
      return;
    }
    ObjectNode attachment = attachments.addObject();
    attachment.put("name", part.getFileName() == null ? "" : part.getFileName());
    attachment.put("type", type(part));
    attachment.put("bytes", part.getSize());
    if (part.isMimeType("text/*")) {
      String kept = bounded(part, LONGEST_TEXT - attachedText);
      attachedText += kept.length();
      attachment.put("text", kept);
    }
    attachment.put("link", link + "/;SECTION=" + section);
  }

  private String bounded(Part part, int most) throws MessagingException, IOException {
    int room = Math.max(0, most);
    try (InputStream in = part.getInputStream()) {
      // No charset takes more than four bytes for a character.
      byte[] bytes = in.readNBytes(4 * room + 1);
      String whole = Controls.without(new String(bytes, charset(part)));
      if (whole.length() > room) {
        cut = true;
        int end = room > 0 && Character.isHighSurrogate(whole.charAt(room - 1)) ? room - 1 : room;
        return whole.substring(0, end);
      }
      return whole;
    }
  }

  /**
   * RFC 2045 section 5.2: US-ASCII where nothing is said, of which UTF-8 is a superset. A charset
   * that we do not know is read so that no byte is lost.
   */
  private static Charset charset(Part part) throws MessagingException {
    try {
      String named = new ContentType(part.getContentType()).getParameter("charset");
      return named == null
          ? StandardCharsets.UTF_8
          : Charset.forName(MimeUtility.javaCharset(named));
    } catch (ParseException | IllegalCharsetNameException | UnsupportedCharsetException e) {
      return StandardCharsets.ISO_8859_1;
    }
  }

  private static String type(Part part) throws MessagingException {
    String written = part.getContentType();
    int end = written.indexOf(';');
    return (end < 0 ? written : written.substring(0, end)).strip().toLowerCase(Locale.ROOT);
  }
}
