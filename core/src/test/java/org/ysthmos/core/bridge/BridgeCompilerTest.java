package org.ysthmos.core.bridge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.testkit.Desk;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.HazardReports;

class BridgeCompilerTest {

  private static DocumentException problems(String document) {
    return catchThrowableOfType(
        DocumentException.class, () -> BridgeCompiler.compile(document, 1, HazardReports.CATALOG));
  }

  static Stream<Arguments> mistakes() {
    return Stream.of(
        Arguments.of("purpose:", "porpose:", "did you mean “purpose”?"),
        Arguments.of(
            "report/answers/seenOn", "report/answers/seenon", "did you mean “/answers/seenOn”?"),
        Arguments.of("report/answers/seenOn", "rapport/answers/seenOn", "did you mean “report”?"),
        Arguments.of("match: [/submission]", "match: [/id]", "no field that comes with the event"),
        Arguments.of("match: [/submission]", "match: []", "at least one value"),
        Arguments.of("  lane:", "  lanes:", "no field of Paths and trees is called “lanes”"),
        Arguments.of(
            "      - at: { time: \"17:00\", zone: Europe/Lisbon }\n",
            "",
            "Due is a moment but the rule gives a day; say the time and the zone"),
        Arguments.of("- move: P7D", "- move: 7 days", "is no period"),
        Arguments.of("zone: Europe/Lisbon", "zone: Lisbon", "is no IANA time zone"),
        Arguments.of("- read-number\n      - bands", "- bands", "takes a number but gets a text"),
        Arguments.of("always: [bu-11]", "always: bu-11", "write them as a list"),
        Arguments.of("\"{report/answers/place}:", "\"{report/answers/place:", "no field"),
        Arguments.of("at-least: 2", "at-least: much", "is no number"),
        Arguments.of("steps: [read-number], at-least", "at-least", "has no meaning for a text"),
        Arguments.of("none: fail", "none: fial", "did you mean “fail”?"),
        Arguments.of(
            "to: { system: grounds-board", "to: { system: nowhere", "there is no collection"),
        Arguments.of("per: PT1H", "per: an hour", "is no span of time"),
        Arguments.of("bridge: hazard-to-grounds", "bridge: Hazard!", "lower case with hyphens"));
  }

  @ParameterizedTest(name = "{1}: {2}")
  @MethodSource("mistakes")
  void mistakeIsNamedWithItsPlaceAndRemedy(String right, String wrong, String says) {
    assertThat(HazardReports.DOCUMENT).contains(right);
    DocumentException refused = problems(HazardReports.DOCUMENT.replace(right, wrong));
    assertThat(refused).hasMessageContaining(says);
    assertThat(refused.problems()).allSatisfy(p -> assertThat(p.line()).isPositive());
  }

  /** What cannot be read, what does not fit and what is not there are told together. */
  @Test
  void mistakesOfAllPhasesAreFoundAtOnce() {
    DocumentException refused =
        catchThrowableOfType(
            DocumentException.class,
            () ->
                Desk.bridge(
                    Desk.BRIDGE
                        .replace("purpose:", "porpose:")
                        .replace("event: [opened, changed]", "event: [creatd]")
                        .replace("title: /place", "title: { value: /place, steps: [trmi] }")
                        .replace("is: present", "is: presnt")
                        .replace("to: /asker", "to: /askr")
                        .replace("per: PT1H", "per: an hour")));
    assertThat(refused.problems())
        .extracting(DocumentProblem::path)
        .containsExactly(
            "",
            "porpose",
            "from/event/0",
            "fields/title/steps/0",
            "then/tell/when/is",
            "ceiling/per");
    assertThat(refused).hasMessageContaining("no kind of event of Tickets is called “creatd”");
  }

  @Test
  void keyThatStandsTwiceIsRefusedWithBothLines() {
    DocumentException refused = problems(HazardReports.DOCUMENT + "\nname: Once more\n");
    assertThat(refused.problems()).hasSize(1);
    assertThat(refused.problems().getFirst().path()).isEqualTo("name");
    assertThat(refused).hasMessageContaining("stands twice in this group, in line 2, too");
  }

  @Test
  void aliasIsNamedWithItsPlace() {
    DocumentException refused =
        problems("a: &list [1, 2]\nb: 3\nc:\n  d: *list\n" + HazardReports.DOCUMENT);
    assertThat(refused.problems()).hasSize(1);
    assertThat(refused.problems().getFirst().line()).isEqualTo(4);
    assertThat(refused.problems().getFirst().column()).isEqualTo(6);
    assertThat(refused).hasMessageContaining("“*list” stands for something written elsewhere");
  }

  @Test
  void allProblemsAreFoundAtOnceWithLineAndColumn() {
    DocumentException refused =
        problems(
            HazardReports.DOCUMENT
                .replace("report/answers/seenOn", "report/answers/seen")
                .replace("always: reported", "always: [reported]"));
    assertThat(refused.problems())
        .extracting(p -> p.path())
        .containsExactly("fields/lane/always", "fields/due/value");
    assertThat(refused.problems().getFirst().line()).isEqualTo(17);
    assertThat(refused.problems().getFirst().column()).isEqualTo(19);
  }

  @Test
  void requiredFieldThatIsMissingIsNamed() {
    String without = HazardReports.DOCUMENT.replaceFirst("(?s)  title:.*?  lane:", "  lane:");
    assertThat(problems(without)).hasMessageContaining("“title” is required by Paths and trees");
  }

  @Test
  void momentInATextNeedsAZone() {
    assertThat(
            problems(HazardReports.DOCUMENT.replace("{report/answers/photo}", "{report/sentAt}")))
        .hasMessageContaining("is a moment and would read differently in each zone");
  }

  @Test
  void whatIsNoYamlSaysWhere() {
    assertThatThrownBy(
            () -> BridgeCompiler.compile("bridge: [a\nname: b", 1, HazardReports.CATALOG))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining("line 2")
        .hasMessageContaining("this is not YAML");
  }

  static Stream<Arguments> mistakesOfTheGarden() {
    return Stream.of(
        Arguments.of(
            "ticket-to-job",
            "was: /was/status",
            "was: /number",
            "is a text and was a number",
            "when/changed/was"),
        Arguments.of("ticket-to-job", "was: /was/status, ", "", "", ""),
        Arguments.of(
            "ticket-to-job",
            "missing: fail }, case: upper",
            "missing: fail }, case: shout",
            "known are upper",
            "values/fault/steps/1/case"),
        Arguments.of(
            "ticket-to-job",
            "{values/fault}: {/subject}",
            "{values/falut}",
            "did you mean “fault”?",
            "fields/title/text"),
        Arguments.of(
            "ticket-to-job",
            "value: /description, steps: [part",
            "text: \"{values/fault}\", steps: [part",
            "is made from itself",
            "values/fault/text"),
        Arguments.of(
            "school-mail-to-lanes",
            "table: mail-lanes, with: [values/flagged], take: lane",
            "table: mail-lane, with: [values/flagged], take: lane",
            "did you mean “mail-lanes”?",
            "fields/lane/steps/0"),
        Arguments.of(
            "school-mail-to-lanes",
            "calendar: office",
            "calendar: ofice",
            "did you mean “office”?",
            "fields/due/steps/1"),
        Arguments.of(
            "pledge-to-follow-up",
            "not-found: { use: tb-01 }",
            "not-found: { user: tb-01 }",
            "did you mean “use”?",
            "fields/owner/steps/0/by-table/not-found/user"),
        Arguments.of(
            "document-to-review",
            "then: { always: [approved, review] }",
            "then: { always: approved }",
            "several values belong here",
            "fields/labels/cases/0/then/always"),
        Arguments.of("document-to-review", "link: /link", "link: /path", "as: link", "fields/link"),
        Arguments.of(
            "exhibition-to-preparations",
            "parent: hang",
            "parent: hnag",
            "did you mean “hang”?",
            "set/tasks/check/parent"),
        Arguments.of(
            "exhibition-to-preparations",
            "opening: { offset: P0D",
            "opening: { offset: P0D, parent: check",
            "stands under itself",
            "set/tasks/opening"),
        Arguments.of(
            "exhibition-to-preparations",
            "due: set/day",
            "due: set/days",
            "no day of a set is called",
            "fields/due"),
        Arguments.of(
            "exhibition-to-preparations",
            "steps: [read-day: iso]",
            "steps: [trim]",
            "the anchor is a day, this is a text",
            "set/anchor"),
        Arguments.of(
            "exhibition-to-preparations",
            "offset: -P6W",
            "offset: 6 weeks",
            "is no offset",
            "set/tasks/invite/offset"),
        Arguments.of(
            "rooms-to-jobs",
            ", key: item/id",
            "",
            "say which field tells one record from another",
            "for-each"),
        Arguments.of(
            "rooms-to-jobs",
            "{item/name} for",
            "{item/nmae} for",
            "did you mean “/name”?",
            "fields/title/text"),
        Arguments.of(
            "rooms-to-jobs",
            "list: /rooms",
            "list: /title",
            "a list is gone through, this is a text",
            "for-each/list"),
        Arguments.of(
            "crews-to-jobs", "match: [/id]", "match: [/crews]", "made of single values", "match/0"),
        Arguments.of(
            "crews-to-jobs",
            "match: [/id]",
            "match: [item/value]",
            "only where a list is gone through",
            "match/0"),
        Arguments.of(
            "seedling-to-ledger",
            "/ts: /ts",
            "/tz: /ts",
            "no field that comes with the events",
            "lookups/message/by/~1tz"),
        Arguments.of(
            "seedling-to-ledger",
            "first-by: /at",
            "first-by: /when",
            "no field of messages",
            "lookups/message/several"),
        Arguments.of(
            "seedling-to-ledger",
            "from: events",
            "from: event",
            "did you mean “events”?",
            "lookups/message/from"));
  }

  @ParameterizedTest(name = "{0}: {2}")
  @MethodSource("mistakesOfTheGarden")
  void mistakeInEachPartOfTheLanguageIsNamedWithItsPlace(
      String bridge, String right, String wrong, String says, String place) {
    String document = Garden.document(bridge);
    assertThat(document).contains(right);
    String changed = document.replace(right, wrong);
    if (says.isEmpty()) {
      assertThat(BridgeCompiler.compile(changed, 1, Garden.CATALOG).number()).isEqualTo(1);
      return;
    }
    DocumentException refused =
        catchThrowableOfType(
            DocumentException.class, () -> BridgeCompiler.compile(changed, 1, Garden.CATALOG));
    assertThat(refused.problems())
        .anySatisfy(
            problem -> {
              assertThat(problem.message()).contains(says);
              assertThat(problem.path()).isEqualTo(place.replace("~1", "/"));
              assertThat(problem.line()).isPositive();
            });
  }

  @Test
  void earlierLookupCannotUseALaterOne() {
    String document =
        Garden.document("hazard-to-grounds")
            .replace(
                "lookups:\n",
                "lookups:\n  first: { in: visitor-desk/hazard-reports, by: { id: report/answers/place } }\n");
    assertThatThrownBy(() -> BridgeCompiler.compile(document, 1, Garden.CATALOG))
        .hasMessageContaining("the lookup “report” comes later");
  }

  @Test
  void gapInABandIsRemarkedOnWithItsPlace() {
    BridgeVersion bridge = BridgeCompiler.compile(HazardReports.DOCUMENT, 1, HazardReports.CATALOG);
    assertThat(bridge.remarks())
        .extracting(DocumentProblem::path)
        .containsOnly("fields/priority/steps/1");
    assertThat(bridge.remarks().getFirst().line()).isPositive();
  }

  @ParameterizedTest
  @ValueSource(strings = {"[", "{ not: ", "- "})
  void documentNestedWithoutEndIsRefused(String level) {
    assertThatThrownBy(() -> DocumentNode.parse("when: \n  " + level.repeat(20_000)))
        .isInstanceOf(DocumentException.class);
    String closed = "when: " + "{ not: ".repeat(150) + "x" + " }".repeat(150);
    assertThatThrownBy(() -> DocumentNode.parse(closed))
        .hasMessageContaining("nested more than 100 levels deep");
  }
}
