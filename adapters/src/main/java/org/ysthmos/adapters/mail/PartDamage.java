package org.ysthmos.adapters.mail;

import jakarta.mail.MessagingException;
import jakarta.mail.Part;
import jakarta.mail.internet.ContentType;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimePart;
import jakarta.mail.internet.ParseException;
import java.io.IOException;
import java.io.InputStream;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** What is wrong with how a part is written, though it is read as far as it goes. */
final class PartDamage {

  /** RFC 2045 section 6.1, and those that were in use before it. */
  private static final Set<String> ENCODINGS =
      Set.of(
          "7bit",
          "8bit",
          "binary",
          "quoted-printable",
          "base64",
          "uuencode",
          "x-uuencode",
          "x-uue");

  /** How much of a part is looked at, in bytes. */
  private static final int LOOKED_AT = 1 << 20;

  private PartDamage() {}

  /** In words that go on after the name of the part; empty if nothing is wrong. */
  static Optional<String> of(Part part) throws MessagingException, IOException {
    if (!(part instanceof MimePart mime)) {
      return Optional.empty();
    }
    if (part.isMimeType("multipart/*")) {
      return boundary(part)
          ? Optional.empty()
          : Optional.of("it has no boundary between its parts");
    }
    String encoding = mime.getEncoding();
    if (encoding == null) {
      return Optional.empty();
    }
    String known = encoding.strip().toLowerCase(Locale.ROOT);
    if (!ENCODINGS.contains(known)) {
      return Optional.of("nobody knows the encoding “" + encoding + "”, it is read as it stands");
    }
    return known.equals("base64") && !isBase64(part)
        ? Optional.of("its base64 is damaged, it is read as far as it goes")
        : Optional.empty();
  }

  private static boolean boundary(Part part) throws MessagingException {
    try {
      return new ContentType(part.getContentType()).getParameter("boundary") != null;
    } catch (ParseException e) {
      return false;
    }
  }

  /** RFC 2045 section 6.8: groups of four, whatever line ends are between them. */
  private static boolean isBase64(Part part) throws MessagingException, IOException {
    try (InputStream in = raw(part)) {
      byte[] written = in.readNBytes(LOOKED_AT);
      int letters = 0;
      for (byte one : written) {
        if (Character.isLetterOrDigit(one) || one == '+' || one == '/' || one == '=') {
          letters++;
        } else if (!Character.isWhitespace(one)) {
          return false;
        }
      }
      return letters % 4 == 0 || written.length == LOOKED_AT;
    }
  }

  private static InputStream raw(Part part) throws MessagingException {
    return switch (part) {
      case MimeBodyPart body -> body.getRawInputStream();
      case MimeMessage mail -> mail.getRawInputStream();
      default -> InputStream.nullInputStream();
    };
  }
}
