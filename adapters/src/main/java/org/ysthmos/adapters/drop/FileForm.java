package org.ysthmos.adapters.drop;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * How files are written.
 *
 * @param separator what parts the cells of a line; empty to be found out
 * @param charset a byte order mark of another one counts more; empty to be found out
 * @param zone in which times are meant that name none, or none that is known
 * @param customs how numbers and days stand in cells
 */
record FileForm(
    Optional<String> separator,
    Optional<Charset> charset,
    Optional<ZoneId> zone,
    CellCustoms customs) {

  static final Charset WINDOWS_1252 = Charset.forName("windows-1252");

  private static final List<String> SEPARATORS = List.of(",", ";", "\t", "|");

  /** The charset that a document names. */
  static Optional<Charset> charset(String word) {
    return switch (word.toLowerCase(Locale.ROOT)) {
      case "utf-8" -> Optional.of(StandardCharsets.UTF_8);
      case "utf-16" -> Optional.of(StandardCharsets.UTF_16);
      case "windows-1252" -> Optional.of(WINDOWS_1252);
      default -> Optional.empty();
    };
  }

  /** The separators that may part cells, the usual one first. */
  static List<String> separators() {
    return SEPARATORS;
  }

  static String shown(String separator) {
    return separator.equals("\t") ? "tab" : separator;
  }

  /** Another separator that stands in a text, for who stated the wrong one. */
  static Optional<String> otherSeparator(String text, String stated) {
    return SEPARATORS.stream()
        .filter(one -> !one.equals(stated) && text.contains(one))
        .map(FileForm::shown)
        .findFirst();
  }

  /**
   * The text of a file.
   *
   * @param remarks what had to be found out
   */
  record Decoded(String text, List<String> remarks) {}

  /**
   * The text of a file, without its byte order mark (RFC 3629 section 6, RFC 2781 section 3.2).
   * Where no charset is stated, what is no UTF-8 is taken for Windows-1252, in which every byte is
   * something.
   *
   * @throws Unreadable if it is not written in the charset
   */
  Decoded decode(byte[] bytes) throws Unreadable {
    Charset used = marked(bytes).or(() -> charset).orElse(StandardCharsets.UTF_8);
    try {
      return new Decoded(text(bytes, used), List.of());
    } catch (CharacterCodingException e) {
      if (charset.isPresent() || !used.equals(StandardCharsets.UTF_8)) {
        throw new Unreadable(
            "it is not written in %s; state its charset in the document".formatted(used));
      }
    }
    try {
      return new Decoded(
          text(bytes, WINDOWS_1252),
          List.of("is no UTF-8 and was read as windows-1252; state its charset in the document"));
    } catch (CharacterCodingException e) {
      throw new Unreadable(
          "it is written neither in UTF-8 nor in windows-1252; state its charset in the document");
    }
  }

  private static String text(byte[] bytes, Charset charset) throws CharacterCodingException {
    String text = charset.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
    return text.startsWith("\uFEFF") ? text.substring(1) : text;
  }

  private static Optional<Charset> marked(byte[] bytes) {
    if (bytes.length < 2) {
      return Optional.empty();
    }
    int first = ((bytes[0] & 0xFF) << 8) | (bytes[1] & 0xFF);
    if (first == 0xFEFF || first == 0xFFFE) {
      return Optional.of(StandardCharsets.UTF_16);
    }
    boolean utf8 = bytes.length >= 3 && first == 0xEFBB && (bytes[2] & 0xFF) == 0xBF;
    return utf8 ? Optional.of(StandardCharsets.UTF_8) : Optional.empty();
  }
}
