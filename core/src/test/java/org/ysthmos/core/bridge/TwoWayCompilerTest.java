package org.ysthmos.core.bridge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.time.Duration;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.recurrence.RuleSentence;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.testkit.Shores;

class TwoWayCompilerTest {

  @Test
  void documentIsWrittenAsItWasRead() {
    BridgeDefinition read = BridgeReader.read(DocumentNode.parse(Shores.BRIDGE));
    String written = BridgeWriter.write(read);
    assertThat(BridgeReader.read(DocumentNode.parse(written))).isEqualTo(read);
    assertThat(BridgeWriter.write(BridgeReader.read(DocumentNode.parse(written))))
        .isEqualTo(written);
  }

  @Test
  void eachSideSeesTheOtherAsItsTarget() {
    BridgeVersion version = Shores.bridge(Shores.BRIDGE);
    assertThat(version.views())
        .extracting(view -> view.source().system() + " to " + view.target().system())
        .containsExactly("board to ledger", "ledger to board");
    BridgeVersion seen = version.seenFrom("ledger", "jobs");
    assertThat(seen.definition().from().system()).isEqualTo("ledger");
    assertThat(seen.definition().to().system()).isEqualTo("board");
    assertThat(seen.between().orElseThrow().from()).isEqualTo(Side.RIGHT);
    assertThat(version.seenFrom("nowhere", "at-all")).isEqualTo(version);
  }

  @Test
  void checkThatComesByItselfIsKeptInTheDocument() {
    String checked = Shores.BRIDGE.replace("fields:\n", "  check: { every: P7D }\nfields:\n");
    BridgeDefinition read = BridgeReader.read(DocumentNode.parse(checked));
    assertThat(Shores.bridge(checked).between().orElseThrow().rule().check())
        .contains(new TwoWay.Check.Every(Duration.ofDays(7)));
    assertThat(BridgeReader.read(DocumentNode.parse(BridgeWriter.write(read)))).isEqualTo(read);
  }

  @Test
  void checkMayComeRoundAtTimesThatAreSaidInWords() {
    String checked =
        Shores.BRIDGE.replace(
            "fields:\n",
            "  check: { times: { rule: every other Sunday, zone: Europe/Lisbon, start: 2026-11-29T03:00 } }\n"
                + "fields:\n");
    BridgeDefinition read = BridgeReader.read(DocumentNode.parse(checked));
    assertThat(read.between().orElseThrow().check().orElseThrow())
        .isInstanceOfSatisfying(
            TwoWay.Check.AtTimes.class,
            at ->
                assertThat(RuleSentence.of(at.times()))
                    .isEqualTo("every other Sunday at 03:00 in Lisbon"));
    String written = BridgeWriter.write(read);
    assertThat(written).contains("FREQ=WEEKLY;INTERVAL=2;BYDAY=SU");
    assertThat(BridgeReader.read(DocumentNode.parse(written))).isEqualTo(read);
  }

  static Stream<Arguments> mistakes() {
    return Stream.of(
        Arguments.of("left: title, right", "left: titel, right", "did you mean “title”?"),
        Arguments.of(
            ", to-left: same }",
            " }",
            "to-right says what it becomes, and nothing says the way back; state to-left"),
        Arguments.of(
            "    to-left: { values: { open: wanted, planned: wanted, in-work: doing, done: finished } }\n",
            "",
            "nothing says the way back"),
        Arguments.of("done: finished } }", "done: finnished } }", "did you mean “finished”?"),
        Arguments.of("{ wanted: open,", "{ wnated: open,", "did you mean “wanted”?"),
        Arguments.of(
            "          to-left: { steps: [at: { time: \"17:00\", zone: Europe/Lisbon }] }\n",
            "          to-left: same\n",
            "Due is a moment but the rule gives a day"),
        Arguments.of("direction: to-right", "direction: to-rigth", "did you mean “to-right”?"),
        Arguments.of(
            "direction: to-right, drift",
            "direction: to-right, to-left: same, drift",
            "does not go this way"),
        Arguments.of("right: note, direction", "right: title, direction", "by another field"),
        Arguments.of(
            "system: ledger\n    collection: jobs",
            "system: board\n    collection: tasks",
            "not with itself"),
        Arguments.of(
            "collection: tasks, event", "collection: task, event", "did you mean “tasks”?"),
        Arguments.of(
            "event: [created, changed, removed], if", "event: [made], if", "kind of event"),
        Arguments.of("{ value: /label, is", "{ value: /lable, is", "did you mean “/label”?"),
        Arguments.of(
            "  title: { left: title, right: title, to-right: { steps: [shorten: 20] }, to-left: same }\n",
            "",
            "“title” is required by"),
        Arguments.of(
            "left: note, right: note", "left: made/lnik, right: note", "did you mean “made/link”?"),
        Arguments.of(
            "left: note, right: note, direction: to-right",
            "left: note, right: made/id, direction: to-right",
            "“made/id” is told by Ledger and never written"),
        Arguments.of(
            "left: note, right: note, direction: to-right",
            "left: note, right: made/link, direction: to-left",
            "have no page of their own"),
        Arguments.of("fields:\n", "match: [/id]\nfields:\n", "match"),
        Arguments.of(
            "if-gone: close\n",
            "if-gone: close\n  check: { every: PT5M }\n",
            "write PT1H or longer"),
        Arguments.of(
            "if-gone: close\n",
            "if-gone: close\n  check: { evry: P1D }\n",
            "did you mean “every”?"),
        checkAt("every full moon", "says nothing that comes round"),
        checkAt("FREQ=MINUTELY", "write FREQ=HOURLY or longer"),
        checkAt("every working day", "a check asks no calendar"),
        Arguments.of(
            "if-gone: close\n",
            "if-gone: close\n  check: { times: { rule: daily, zone: Mars, start: 2026-11-29T03:00 } }\n",
            "write a zone such as Europe/Lisbon"),
        Arguments.of(
            "if-gone: close\n",
            "if-gone: close\n  check: { every: P1D, times: { rule: daily } }\n",
            "say either every how long"),
        Arguments.of("if-gone: part }", "if-gone: parted }", "did you mean “part”?"));
  }

  private static Arguments checkAt(String rule, String says) {
    return Arguments.of(
        "if-gone: close\n",
        "if-gone: close\n  check: { times: { rule: %s, zone: UTC, start: 2026-11-29T03:00 } }\n"
            .formatted(rule),
        says);
  }

  @ParameterizedTest(name = "{1}: {2}")
  @MethodSource("mistakes")
  void mistakeIsNamedWithItsPlaceAndRemedy(String right, String wrong, String says) {
    String inDocument = Shores.BRIDGE.contains(right) ? right : right.stripLeading();
    assertThat(Shores.BRIDGE).contains(inDocument);
    DocumentException refused =
        catchThrowableOfType(
            DocumentException.class,
            () -> Shores.bridge(Shores.BRIDGE.replace(inDocument, wrong.stripLeading())));
    assertThat(refused).hasMessageContaining(says);
    assertThat(refused.problems()).allSatisfy(p -> assertThat(p.line()).isPositive());
  }
}
