package org.ysthmos.core.loop;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.loop.Circle.End;
import org.ysthmos.core.testkit.Yards;

/** Circles of bridges, and how each is judged. */
class CirclesTest {

  private static final String ALL = "event: [created], own-writes: true";
  private static final String FIELDS = "match: [/id]\nfields: { title: /title%s }\n";

  private static Tells tells(boolean own, boolean several) {
    return new Tells() {
      @Override
      public boolean knowsOwnWriting(CollectionRef at) {
        return own;
      }

      @Override
      public boolean makingIsChanging(CollectionRef at) {
        return several;
      }
    };
  }

  private static final Tells NOTHING = tells(false, false);

  private static String fields(String more) {
    return FIELDS.formatted(more.isEmpty() ? "" : ", " + more);
  }

  private static BridgeVersion over(String hears, String more) {
    return Yards.bridge("north", hears, "south", more);
  }

  private static BridgeVersion back(String hears, String more) {
    return Yards.bridge("south", hears, "north", more);
  }

  private static Circle only(Tells tells, BridgeVersion... bridges) {
    List<Circle> circles = Circles.through(bridges[0], List.of(bridges), tells);
    assertThat(circles).hasSize(1);
    return circles.getFirst();
  }

  static Stream<Arguments> situations() {
    BridgeVersion over = over(ALL, fields(""));
    return Stream.of(
        Arguments.of(
            "each turn makes a task",
            NOTHING,
            over,
            back(ALL, fields("")),
            End.DOES_NOT_STOP,
            "nothing in the rules ends it"),
        Arguments.of(
            "a test is met by what is always written",
            NOTHING,
            over(ALL, fields("status: { always: open }")),
            back(ALL, "when: { value: /status, equal: open }\n" + fields("")),
            End.DOES_NOT_STOP,
            "nothing in the rules ends it"),
        Arguments.of(
            "a test is not met by what is always written",
            NOTHING,
            over(ALL, fields("status: { always: copied }")),
            back(ALL, "when: { not: { value: /status, equal: copied } }\n" + fields("")),
            End.STOPS,
            "“south to north” takes none that “north to south” writes"),
        Arguments.of(
            "one of several tests is not met",
            NOTHING,
            over(ALL, fields("status: { always: copied }")),
            back(
                ALL,
                "when: { all: [{ value: /title, is: present }, { value: /status, equal: open }] }\n"
                    + fields("")),
            End.STOPS,
            "takes none"),
        Arguments.of(
            "a test asks about what is copied",
            NOTHING,
            over,
            back(ALL, "when: { value: /title, starts-with: Fix }\n" + fields("")),
            End.CANNOT_BE_TOLD,
            "Whether what “north to south” writes meets"),
        Arguments.of(
            "its own writing is not heard",
            tells(true, false),
            over,
            back("event: [created]", fields("")),
            End.STOPS,
            "does not hear of what is written there from here"),
        Arguments.of(
            "its own writing is not to be heard and may be all the same",
            NOTHING,
            over,
            back("event: [created]", fields("")),
            End.CANNOT_BE_TOLD,
            "may not tell whose it is"),
        Arguments.of(
            "what comes back is known by what is copied",
            NOTHING,
            over(ALL, "match: [/title]\nfields: { title: /title }\n"),
            back(ALL, fields("")),
            End.STOPS,
            "“north to south” knows what comes back by its title"),
        Arguments.of(
            "what comes back is known by what is always the same",
            NOTHING,
            over(ALL, "match: [/status]\nfields: { title: /title }\n"),
            back(ALL, fields("status: { always: open }")),
            End.STOPS,
            "knows what comes back by its status"),
        Arguments.of(
            "it is told apart by what goes through steps",
            NOTHING,
            over(ALL, "match: [/title]\nfields: { title: { text: \"Again: {/title}\" } }\n"),
            back(ALL, fields("")),
            End.DOES_NOT_STOP,
            "nothing in the rules ends it"),
        Arguments.of(
            "changes alone are heard of",
            NOTHING,
            over,
            back("event: [changed], own-writes: true", fields("")),
            End.CANNOT_BE_TOLD,
            "hears of changes alone"),
        Arguments.of(
            "making is told of as a change, too",
            tells(false, true),
            over,
            back("event: [changed], own-writes: true", fields("")),
            End.DOES_NOT_STOP,
            "nothing in the rules ends it"));
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("situations")
  void isJudgedByItsRules(
      String name, Tells tells, BridgeVersion over, BridgeVersion back, End end, String because) {
    Circle circle = only(tells, over, back);
    assertThat(circle.end()).isEqualTo(end);
    assertThat(String.join(" ", circle.because())).contains(because);
    assertThat(circle.turns())
        .extracting(Circle.Turn::bridge)
        .containsExactly("north-to-south", "south-to-north");
    // Whoever is asked about first, it is the same circle.
    assertThat(only(tells, back, over).end()).isEqualTo(end);
  }

  private static Circle ofItself(String fields, String then) {
    return only(
        NOTHING,
        Yards.bridge(
            "north",
            "event: [created, changed], own-writes: true",
            "south",
            fields + "then:\n  back:\n    to: record\n    fields: { " + then + " }\n"));
  }

  @Test
  void bridgeThatChangesWhatItHeardOfStopsUnlessItReadsWhatItWrites() {
    Circle unread = ofItself(fields(""), "note: { text: \"Task {made/id}\" }");
    assertThat(unread.end()).isEqualTo(End.STOPS);
    assertThat(unread.because().getFirst()).contains("reads nothing of what it writes there");
    assertThat(unread.turns())
        .containsExactly(
            new Circle.Turn(
                "north-to-south", "north to south", "back", new CollectionRef("yard", "north")));

    Circle same = ofItself(fields("note: /note"), "note: { always: taken }");
    assertThat(same.end()).isEqualTo(End.STOPS);
    assertThat(same.because().getFirst()).contains("always writes the same");

    Circle read = ofItself(fields("note: /note"), "note: { text: \"{/note}!\" }");
    assertThat(read.end()).isEqualTo(End.CANNOT_BE_TOLD);
    assertThat(read.because().getFirst()).contains("reads note, which it writes itself");
  }

  /** A bridge that makes, and one that changes what the first was made of. */
  private static Circle andBack(String when) {
    return only(
        NOTHING,
        over("event: [created, changed], own-writes: true", when + fields("note: /note")),
        Yards.bridge(
            "back",
            "south",
            "event: [created, changed], own-writes: true",
            "west",
            """
            lookups: { whole: { from: tasks, in: north-to-south, by: { task: /id } } }
            match: [/id]
            fields: { title: /title }
            then:
              back:
                to: { system: yard, collection: north, record: whole/record }
                fields: { note: { always: done } }
            """));
  }

  /** What is always the same is told of all the same, and could be taken for something new. */
  @Test
  void bridgeThatChangesARecordElsewhereEndsOnlyByATest() {
    Circle open = andBack("");
    assertThat(open.end()).isEqualTo(End.CANNOT_BE_TOLD);
    assertThat(String.join(" ", open.because())).contains("changes a record elsewhere");
    Circle tested = andBack("when: { not: { value: /note, equal: done } }\n");
    assertThat(tested.end()).isEqualTo(End.STOPS);
    assertThat(String.join(" ", tested.because())).contains("as there note is “done”");
  }

  @Test
  void allWaysRoundAreFoundTheShortestFirstAndNoneTwice() {
    BridgeVersion over = over(ALL, fields(""));
    List<BridgeVersion> others =
        List.of(
            back(ALL, fields("")),
            Yards.bridge("south", ALL, "west", fields("")),
            Yards.bridge("west", ALL, "north", fields("")));
    List<Circle> circles = Circles.through(over, others, NOTHING);
    assertThat(circles)
        .extracting(circle -> circle.turns().stream().map(Circle.Turn::bridge).toList())
        .containsExactly(
            List.of("north-to-south", "south-to-north"),
            List.of("north-to-south", "south-to-west", "west-to-north"));
  }

  /** Many bridges side by side would make more ways than could ever be walked. */
  @Test
  void manyBridgesSideBySideAreLookedThroughAllTheSame() {
    List<BridgeVersion> many = new ArrayList<>();
    for (int i = 0; i < 40; i++) {
      many.add(Yards.bridge("over-" + i, "south", ALL, "west", fields("")));
      many.add(Yards.bridge("back-" + i, "west", ALL, "south", fields("")));
    }
    BridgeVersion into = over(ALL, fields(""));
    assertThat(Circles.through(into, many, NOTHING)).isEmpty();
    many.add(back(ALL, fields("")));
    List<Circle> circles = Circles.through(into, many, NOTHING);
    assertThat(circles).hasSize(20);
    assertThat(circles.getFirst().turns()).hasSize(2);
  }

  @Test
  void noneIsFoundWhereNothingLeadsBack() {
    assertThat(Circles.through(over(ALL, fields("")), List.of(), NOTHING)).isEmpty();
  }
}
