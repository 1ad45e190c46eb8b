package org.ysthmos.app.installation;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.SequencedMap;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.ysthmos.app.register.Cards;
import org.ysthmos.app.register.Cards.Card;
import org.ysthmos.app.testplan.PlannedTest;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentText;

/**
 * What people say of bridges, as one document: who looks after each, how sound it is, and which
 * tests are planned.
 */
final class RegisterDocument {

  private static final int LONGEST = 200;

  /** Who tests where the product does so itself. */
  private static final String ITSELF = "pinned-examples";

  private static final Pattern DAYS = Pattern.compile("P(\\d{1,5})D");

  /** What is said of a bridge. */
  record Said(Card card, List<PlannedTest> tests) {

    static final Said NOTHING = new Said(Card.NONE, List.of());

    Said {
      tests = List.copyOf(tests);
    }

    private Map<String, Object> group() {
      Map<String, Object> group = new LinkedHashMap<>();
      add(group, "owner", card.owner());
      add(group, "stand-in", card.standIn());
      add(group, "department", card.department());
      add(group, "judged", card.judged());
      if (!tests.isEmpty()) {
        group.put("tests", tests.stream().map(Said::group).toList());
      }
      return group;
    }

    private static Map<String, Object> group(PlannedTest test) {
      Map<String, Object> group = new LinkedHashMap<>();
      group.put("what", test.what());
      add(group, "by", test.itself() ? ITSELF : "");
      add(group, "owner", test.owner());
      add(group, "every", test.everyDays() == null ? "" : "P" + test.everyDays() + "D");
      add(group, "rule", Objects.requireNonNullElse(test.rule(), ""));
      group.put("from", test.firstOn().toString());
      return group;
    }

    private static void add(Map<String, Object> group, String key, String text) {
      if (!text.isEmpty()) {
        group.put(key, text);
      }
    }
  }

  private RegisterDocument() {}

  static String write(SortedMap<String, Said> said) {
    SequencedMap<String, Object> all = new LinkedHashMap<>();
    said.forEach((bridge, one) -> all.put(bridge, one.group()));
    SequencedMap<String, Object> document = new LinkedHashMap<>();
    document.put("bridges", all);
    return DocumentText.write(document);
  }

  /**
   * By bridge.
   *
   * @throws org.ysthmos.core.document.DocumentException if it cannot be read
   */
  static SortedMap<String, Said> read(String text) {
    DocumentNode root = DocumentNode.parse(text);
    root.only("bridges");
    SortedMap<String, Said> said = new TreeMap<>();
    root.need("bridges").group().forEach((bridge, one) -> said.put(bridge, said(one)));
    return said;
  }

  /** What becomes another, as people read it. */
  static List<String> differences(Map<String, Said> before, Map<String, Said> after) {
    TreeSet<String> both = new TreeSet<>(before.keySet());
    both.addAll(after.keySet());
    List<String> words = new ArrayList<>();
    for (String bridge : both) {
      Said was = before.getOrDefault(bridge, Said.NOTHING);
      Said is = after.getOrDefault(bridge, Said.NOTHING);
      if (!was.equals(is)) {
        words.add("%s: %s → %s".formatted(bridge, was.group(), is.group()));
      }
    }
    return words;
  }

  private static Said said(DocumentNode node) {
    node.only("owner", "stand-in", "department", "judged", "tests");
    node.get("judged")
        .ifPresent(
            judged -> {
              if (!Cards.judgements().contains(judged.text())) {
                throw judged.refuse("one of " + String.join(", ", Cards.judgements()));
              }
            });
    Card card =
        new Card(
            text(node, "owner"),
            text(node, "stand-in"),
            text(node, "department"),
            text(node, "judged"));
    return new Said(
        card, node.get("tests").map(tests -> tests.each(RegisterDocument::test)).orElse(List.of()));
  }

  private static PlannedTest test(DocumentNode node) {
    node.only("what", "by", "owner", "every", "rule", "from");
    node.get("by")
        .ifPresent(
            by -> {
              if (!by.text().equals(ITSELF)) {
                throw by.refuse("%s, or left out where a person tests it".formatted(ITSELF));
              }
            });
    try {
      return new PlannedTest(
          node.need("what").text().strip(),
          node.get("by").isPresent(),
          text(node, "owner"),
          node.get("every").map(every -> every.parsed(RegisterDocument::days)).orElse(null),
          node.get("rule").map(rule -> rule.text().strip()).orElse(null),
          node.need("from").parsed(RegisterDocument::day));
    } catch (IllegalArgumentException e) {
      throw node.refuse(String.valueOf(e.getMessage()));
    }
  }

  private static int days(String text) {
    Matcher days = DAYS.matcher(text);
    if (!days.matches()) {
      throw new IllegalArgumentException("“%s” is no number of days, such as P30D".formatted(text));
    }
    return Integer.parseInt(days.group(1));
  }

  private static LocalDate day(String text) {
    try {
      return LocalDate.parse(text);
    } catch (DateTimeParseException e) {
      throw new IllegalArgumentException("“%s” is no day, such as 2026-10-05".formatted(text), e);
    }
  }

  private static String text(DocumentNode node, String key) {
    String text = node.get(key).map(DocumentNode::text).orElse("").strip();
    if (text.length() > LONGEST) {
      throw node.need(key).refuse("at most " + LONGEST + " characters");
    }
    return text;
  }
}
