package org.ysthmos.core.reading;

import java.util.ArrayList;
import java.util.List;

/**
 * A text with slots: {@code {report/place}: {report/problem}}. A brace of the text itself is
 * written twice.
 */
public record Template(List<Part> parts) {

  /** A piece of a template. */
  public sealed interface Part {}

  /** Text that stands as it is. */
  public record Words(String text) implements Part {}

  /** A place for a source field. */
  public record Slot(Address address) implements Part {}

  /** A place for the value in hand, written {@code {value}}. */
  public record InHand() implements Part {}

  public Template {
    parts = List.copyOf(parts);
  }

  /**
   * @throws IllegalArgumentException if a brace is left open or a slot holds no address
   */
  public static Template parse(String text) {
    List<Part> parts = new ArrayList<>();
    StringBuilder words = new StringBuilder();
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if ((c == '{' || c == '}') && i + 1 < text.length() && text.charAt(i + 1) == c) {
        words.append(c);
        i++;
      } else if (c == '{') {
        int end = text.indexOf('}', i);
        if (end < 0) {
          throw new IllegalArgumentException("a slot is opened by { and never closed by }");
        }
        flush(words, parts);
        String slot = text.substring(i + 1, end).strip();
        parts.add(slot.equals("value") ? new InHand() : new Slot(Address.parse(slot)));
        i = end;
      } else if (c == '}') {
        throw new IllegalArgumentException(
            "a } stands without its {; write }} for the sign itself");
      } else {
        words.append(c);
      }
    }
    flush(words, parts);
    return new Template(parts);
  }

  private static void flush(StringBuilder words, List<Part> parts) {
    if (!words.isEmpty()) {
      parts.add(new Words(words.toString()));
      words.setLength(0);
    }
  }

  public List<Address> addresses() {
    return parts.stream()
        .filter(Slot.class::isInstance)
        .map(part -> ((Slot) part).address())
        .toList();
  }

  /** As it is written; reading it again gives the same template. */
  @Override
  public String toString() {
    StringBuilder text = new StringBuilder();
    for (Part part : parts) {
      switch (part) {
        case Words words -> text.append(words.text().replace("{", "{{").replace("}", "}}"));
        case Slot slot -> text.append('{').append(slot.address()).append('}');
        case InHand inHand -> text.append("{value}");
      }
    }
    return text.toString();
  }
}
