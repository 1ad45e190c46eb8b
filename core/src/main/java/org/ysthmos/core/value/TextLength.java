package org.ysthmos.core.value;

import java.text.BreakIterator;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/**
 * How a system counts the length of a text. The same text has different lengths: “👩‍🌾” is one
 * character as people see it, three code points, five UTF-16 code units and eleven bytes of UTF-8.
 */
public enum TextLength {
  /** Extended grapheme clusters of Unicode UAX 29, as the JDK's break iterator finds them. */
  CHARACTERS("characters", "visible characters"),
  CODE_POINTS("code-points", "Unicode code points"),
  /** UTF-16 code units, as JavaScript and Java count. */
  CODE_UNITS("code-units", "characters"),
  /** Bytes of UTF-8. */
  BYTES("bytes", "bytes");

  private final String key;
  private final String words;

  TextLength(String key, String words) {
    this.key = key;
    this.words = words;
  }

  /** What people call the unit; code units are what most of them mean by characters. */
  public String words() {
    return words;
  }

  /** The word used in documents, for example {@code code-units}. */
  public String key() {
    return key;
  }

  public static Optional<TextLength> parse(String key) {
    return Arrays.stream(values()).filter(unit -> unit.key().equals(key)).findFirst();
  }

  public int of(String text) {
    return switch (this) {
      case CODE_UNITS -> text.length();
      case CODE_POINTS -> text.codePointCount(0, text.length());
      case BYTES -> utf8Length(text, text.length());
      case CHARACTERS -> {
        BreakIterator clusters = clusters(text);
        int count = 0;
        while (clusters.next() != BreakIterator.DONE) {
          count++;
        }
        yield count;
      }
    };
  }

  /** Whether the text is certainly not longer than this, which spares counting it. */
  public boolean fits(String text, int longest) {
    return this == BYTES
        ? text.length() * 3L <= longest || of(text) <= longest
        : text.length() <= longest || of(text) <= longest;
  }

  /**
   * Where to cut the text so that what stays is at most this long and no grapheme cluster is cut.
   *
   * @return an index into the UTF-16 code units; the whole length if all of it fits
   */
  public int cut(String text, int longest) {
    BreakIterator clusters = clusters(text);
    int fitting = 0;
    int length = 0;
    for (int end = clusters.next(); end != BreakIterator.DONE; end = clusters.next()) {
      length +=
          switch (this) {
            case CHARACTERS -> 1;
            case CODE_POINTS -> text.codePointCount(fitting, end);
            case CODE_UNITS -> end - fitting;
            case BYTES -> utf8Length(text.substring(fitting, end), end - fitting);
          };
      if (length > longest) {
        return fitting;
      }
      fitting = end;
    }
    return fitting;
  }

  private static BreakIterator clusters(String text) {
    BreakIterator clusters = BreakIterator.getCharacterInstance(Locale.ROOT);
    clusters.setText(text);
    return clusters;
  }

  private static int utf8Length(String text, int units) {
    int bytes = 0;
    for (int i = 0; i < units; i++) {
      char c = text.charAt(i);
      if (c < 0x80) {
        bytes++;
      } else if (c < 0x800) {
        bytes += 2;
      } else if (Character.isHighSurrogate(c)
          && i + 1 < units
          && Character.isLowSurrogate(text.charAt(i + 1))) {
        bytes += 4;
        i++;
      } else {
        bytes += 3;
      }
    }
    return bytes;
  }
}
