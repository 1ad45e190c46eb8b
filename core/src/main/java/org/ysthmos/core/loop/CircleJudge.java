package org.ysthmos.core.loop;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.loop.Circle.End;
import org.ysthmos.core.loop.Circle.Turn;
import org.ysthmos.core.loop.Written.Says;
import org.ysthmos.core.reading.BoundField;

/**
 * Judges a circle by its rules alone. It stops where a bridge on it does not hear of what the one
 * before it writes, where a test is not met by what is written, where the record that comes back is
 * known, or where what is changed is not read. It does not stop where each turn makes a record and
 * nothing asks about it. Everything else cannot be told.
 */
final class CircleJudge {

  private final List<Arm> way;
  private final Tells tells;
  private final List<String> stops = new ArrayList<>();
  private final List<String> open = new ArrayList<>();

  private CircleJudge(List<Arm> way, Tells tells) {
    this.way = way;
    this.tells = tells;
  }

  static Circle judge(List<Arm> way, Tells tells) {
    return new CircleJudge(way, tells).judge();
  }

  private Circle judge() {
    for (int i = 0; i < way.size(); i++) {
      Arm arm = way.get(i);
      Arm next = way.get((i + 1) % way.size());
      hears(arm, next);
      tests(arm, next);
    }
    for (Arm arm : way) {
      isKnown(arm);
      readsNothing(arm);
    }
    End end = End.DOES_NOT_STOP;
    List<String> because = List.of("Each turn makes a record, and nothing in the rules ends it.");
    if (!stops.isEmpty()) {
      end = End.STOPS;
      because = stops;
    } else if (!open.isEmpty()) {
      end = End.CANNOT_BE_TOLD;
      because = open;
    }
    return new Circle(
        way.getFirst().from(),
        way.stream().map(arm -> new Turn(arm.id(), arm.name(), arm.effect(), arm.to())).toList(),
        end,
        because.stream().distinct().toList());
  }

  private static String quoted(Arm arm) {
    return "“" + arm.name() + "”";
  }

  private void hears(Arm arm, Arm next) {
    boolean ownWriting = next.bridge().definition().from().ownWrites();
    if (!ownWriting && tells.knowsOwnWriting(next.from())) {
      stops.add(quoted(next) + " does not hear of what is written there from here.");
    } else if (!ownWriting) {
      open.add(
          "%s is not to hear of what is written there from here, but %s may not tell whose it is."
              .formatted(quoted(next), next.bridge().source().systemName()));
    }
    if (!arm.isHeardAtOnceBy(next, tells)) {
      open.add(
          "%s hears of changes alone: whether %s changes again what it made depends on what comes."
              .formatted(quoted(next), quoted(arm)));
    }
  }

  /** Which tests of a bridge what the one before it writes meets or not. */
  private void tests(Arm arm, Arm next) {
    Written written = Written.by(arm);
    for (CompiledCondition part : parts(next.bridge().when())) {
      Says says = written.says(part, next.bridge());
      if (says == Says.NO) {
        stops.add(
            "%s takes none that %s writes, as there %s."
                .formatted(quoted(next), quoted(arm), part.denied()));
      } else if (says == Says.UNKNOWN) {
        open.add(
            "Whether what %s writes meets “%s” of %s cannot be told from the rules."
                .formatted(quoted(arm), part.sentence(), quoted(next)));
      }
    }
  }

  private static List<CompiledCondition> parts(CompiledCondition condition) {
    return condition instanceof CompiledCondition.All all
        ? all.parts().stream().flatMap(part -> parts(part).stream()).toList()
        : List.of(condition);
  }

  /** Where the match key of a bridge comes back as it was, its task is known the second time. */
  private void isKnown(Arm arm) {
    List<BoundField> match = arm.bridge().match();
    boolean same =
        !match.isEmpty()
            && way.stream().allMatch(Arm::makes)
            && match.stream().allMatch(field -> comesBackTheSame(arm, field));
    if (same) {
      String names =
          match.stream().map(field -> field.shape().name()).collect(Collectors.joining(" and "));
      stops.add(
          "%s knows what comes back by its %s, which is the same each time round, and makes no second task of it."
              .formatted(quoted(arm), names));
    }
  }

  /** Whether a field of what a bridge hears has the same value after a turn of the circle. */
  private boolean comesBackTheSame(Arm arm, BoundField field) {
    int at = way.indexOf(arm);
    Optional<String> key = Written.key(field);
    for (int i = 1; i <= way.size() && key.isPresent(); i++) {
      Arm before = way.get(Math.floorMod(at - i, way.size()));
      Written written = Written.by(before);
      if (written.constant(key.get()).isPresent()) {
        return true;
      }
      key = written.copiedFrom(key.get());
    }
    return key.isPresent() && key.equals(Written.key(field));
  }

  /** A bridge that changes what it heard of goes round until nothing differs any more. */
  private void readsNothing(Arm arm) {
    if (arm.makes()) {
      return;
    }
    if (!arm.from().equals(arm.to())) {
      // Even what is always the same may be told of, and be taken for something new.
      open.add(
          "%s changes a record elsewhere: whether anything new comes of that cannot be told from the rules."
              .formatted(quoted(arm)));
      return;
    }
    Set<String> read = Written.readBy(arm.bridge());
    List<String> both =
        arm.fields().stream().map(field -> field.target().key()).filter(read::contains).toList();
    Written written = Written.by(arm);
    if (both.isEmpty()) {
      stops.add(
          "%s changes the record that it heard of, and reads nothing of what it writes there: the second time nothing differs."
              .formatted(quoted(arm)));
    } else if (both.stream().allMatch(key -> written.constant(key).isPresent())) {
      stops.add(
          "%s always writes the same into what it reads itself, so that after a turn nothing differs."
              .formatted(quoted(arm)));
    } else {
      open.add(
          "%s reads %s, which it writes itself."
              .formatted(quoted(arm), String.join(" and ", both)));
    }
  }
}
