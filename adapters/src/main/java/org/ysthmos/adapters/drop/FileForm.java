package org.ysthmos.adapters.drop;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * How files are written.
 *
 * @param separator what parts the cells of a line
 * @param charset the one that is stated; a byte order mark of another one counts more
 */
record FileForm(String separator, Charset charset) {

  static final FileForm USUAL = new FileForm(",", StandardCharsets.UTF_8);

  private static final List<String> SEPARATORS = List.of(",", ";", "\t", "|");

  /** The charset that a document names. */
  static Optional<Charset> charset(String word) {
    return switch (word.toLowerCase(Locale.ROOT)) {
      case "utf-8" -> Optional.of(StandardCharsets.UTF_8);
      case "utf-16" -> Optional.of(StandardCharsets.UTF_16);
      case "windows-1252" -> Optional.of(Charset.forName("windows-1252"));
      default -> Optional.empty();
    };
  }

  /** Another separator that stands in a text, for who stated the wrong one. */
  static Optional<String> otherSeparator(String text, String stated) {
    return SEPARATORS.stream()
        .filter(one -> !one.equals(stated) && text.contains(one))
        .map(one -> one.equals("\t") ? "tab" : one)
        .findFirst();
  }

  /**
   * The text of a file, without its byte order mark (RFC 3629 section 6, RFC 2781 section 3.2).
   *
   * @throws CharacterCodingException if it is not written in the charset
   */
  String text(byte[] bytes) throws CharacterCodingException {
    Charset used = marked(bytes).orElse(charset);
    String text = used.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
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
