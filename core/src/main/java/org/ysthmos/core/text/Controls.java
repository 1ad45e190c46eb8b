package org.ysthmos.core.text;

import java.util.regex.Pattern;

/**
 * Characters that say nothing in a text and that few can hold: those below the space but for tab
 * and line ends, which XML 1.0 (section 2.2, {@code Char}) and iCalendar (RFC 5545 section 3.1,
 * {@code CONTROL}) exclude, DELETE, surrogates without their other half, and the two that are no
 * characters.
 */
public final class Controls {

  private static final Pattern UNWANTED =
      Pattern.compile(
          "[\\x00-\\x08\\x0B\\x0C\\x0E-\\x1F\\x7F\\uFFFE\\uFFFF]"
              + "|[\\uD800-\\uDBFF](?![\\uDC00-\\uDFFF])|(?<![\\uD800-\\uDBFF])[\\uDC00-\\uDFFF]");

  private Controls() {}

  /** The text without them. */
  public static String without(String text) {
    return UNWANTED.matcher(text).replaceAll("");
  }
}
