package org.ysthmos.core.text;

import java.util.Set;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;

/**
 * Readable plain text out of HTML, as mail programs and web forms send it: a block starts a new
 * line, a paragraph leaves one line free, an item of a list starts with a hyphen, a cell of a row
 * is set off by a tab's worth of space, and a link keeps its address in brackets unless the address
 * is what is read anyway. What nobody reads (styles, scripts, heads, comments) is left out. White
 * space is folded as CSS 2.2 section 16.6.1 folds it, except in {@code pre}.
 */
public final class HtmlText {

  private static final Set<String> UNREAD =
      Set.of("head", "style", "script", "template", "noscript", "title", "svg");
  private static final Set<String> PARAGRAPHS =
      Set.of(
          "p", "ul", "ol", "dl", "table", "blockquote", "pre", "h1", "h2", "h3", "h4", "h5", "h6");

  /** How deep elements are told apart; what is nested deeper is read as plain words. */
  private static final int DEEPEST = 200;

  private final StringBuilder out = new StringBuilder();

  /** How many line ends are still to be written before the next word. */
  private int owedLines;

  private boolean owedSpace;

  private HtmlText() {}

  /** The readable text; a text without any mark-up comes out with its white space folded. */
  public static String of(String html) {
    HtmlText text = new HtmlText();
    text.children(Jsoup.parse(html).body(), false, 0);
    return text.out.toString();
  }

  private void children(Element element, boolean asIs, int depth) {
    if (depth > DEEPEST) {
      write(element.wholeText(), asIs);
      return;
    }
    int number = 0;
    for (Node child : element.childNodes()) {
      if (child instanceof org.jsoup.nodes.TextNode words) {
        write(words.getWholeText(), asIs);
      } else if (child instanceof Element inner) {
        if (inner.normalName().equals("li")) {
          number++;
        }
        element(inner, number, asIs, depth);
      }
    }
  }

  private void element(Element element, int number, boolean asIs, int depth) {
    String name = element.normalName();
    if (UNREAD.contains(name)) {
      return;
    }
    boolean paragraph = PARAGRAPHS.contains(name) && !isInList(element);
    boolean block = paragraph || element.isBlock();
    switch (name) {
      case "br" -> owe(owedLines + 1);
      case "hr" -> {
        owe(1);
        write("----", false);
        owe(1);
      }
      case "img" -> write(element.attr("alt"), false);
      case "td", "th" -> cell(element, asIs, depth);
      default -> {
        if (block) {
          owe(paragraph ? 2 : 1);
        }
        if (name.equals("li")) {
          write(isOrdered(element) ? number + ". " : "- ", true);
        }
        children(element, asIs || name.equals("pre"), depth + 1);
        if (name.equals("a")) {
          address(element);
        }
        if (block) {
          owe(paragraph ? 2 : 1);
        }
      }
    }
  }

  /** A list within a list goes on line by line and leaves no line free. */
  private static boolean isInList(Element element) {
    Element parent = element.parent();
    return parent != null && (parent.normalName().equals("li") || parent.normalName().equals("td"));
  }

  private static boolean isOrdered(Element item) {
    Element parent = item.parent();
    return parent != null && parent.normalName().equals("ol");
  }

  private void cell(Element cell, boolean asIs, int depth) {
    if (cell.elementSiblingIndex() > 0) {
      owedLines = 0;
      write("  ", true);
    }
    children(cell, asIs, depth + 1);
  }

  private void address(Element link) {
    String address = link.attr("href").strip();
    String plain = address.startsWith("mailto:") ? address.substring(7) : address;
    if (address.startsWith("http") || address.startsWith("mailto:")) {
      if (!link.text().contains(plain)) {
        write(" (" + plain + ")", false);
      }
    }
  }

  private void owe(int lines) {
    owedLines = Math.max(owedLines, Math.min(lines, 2));
    owedSpace = false;
  }

  private void write(String words, boolean asIs) {
    for (int i = 0; i < words.length(); i++) {
      char c = words.charAt(i);
      if (asIs && c == '\n') {
        owedLines++;
      } else if (!asIs && isSpace(c)) {
        owedSpace = true;
      } else {
        settle();
        out.append(c == '\u00a0' ? ' ' : c);
      }
    }
  }

  /** CSS folds these; a no-break space is not among them. */
  private static boolean isSpace(char c) {
    return c == ' ' || c == '\t' || c == '\n' || c == '\r' || c == '\f';
  }

  private void settle() {
    if (!out.isEmpty()) {
      if (owedLines > 0) {
        out.append("\n".repeat(owedLines));
      } else if (owedSpace && !endsWithSpace()) {
        out.append(' ');
      }
    }
    owedLines = 0;
    owedSpace = false;
  }

  private boolean endsWithSpace() {
    return Character.isWhitespace(out.charAt(out.length() - 1));
  }
}
