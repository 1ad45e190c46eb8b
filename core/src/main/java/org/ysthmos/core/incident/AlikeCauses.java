package org.ysthmos.core.incident;

import static org.ysthmos.core.incident.Weighing.PROVES;
import static org.ysthmos.core.incident.Weighing.STRONG;
import static org.ysthmos.core.incident.Weighing.WEAK;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.incident.Evidence.Group;
import org.ysthmos.core.incident.Evidence.Load;

/** Why failures that all say the same came about. */
final class AlikeCauses {

  private AlikeCauses() {}

  static Stream<Weighing> weigh(Evidence evidence) {
    if (evidence.failures().isEmpty()) {
      return Stream.empty();
    }
    Group one = evidence.failures().getFirst();
    List<Weighing> all = new ArrayList<>();
    all.add(ofTheKind(evidence, one));
    all.add(shape(evidence, one));
    all.add(nameGone(evidence, one));
    all.add(newVersion(evidence));
    all.add(oneRecord(evidence, one));
    return all.stream();
  }

  private static int records(Evidence evidence) {
    return evidence.failures().stream().mapToInt(Group::records).sum();
  }

  private static Weighing ofTheKind(Evidence evidence, Group one) {
    String said = "It says: " + one.message();
    return switch (one.kind()) {
      case VALUE_REFUSED ->
          named(new Weighing(Cause.RULE), evidence, one)
              .because(STRONG, said)
              .because(
                  records(evidence) > 1,
                  WEAK,
                  "It is so for %,d different records.".formatted(records(evidence)));
      case MAPPING_ERROR ->
          new Weighing(Cause.RULE)
              .as(
                  one.field().isEmpty()
                      ? "Rules come to no value"
                      : "The rule for “%s” comes to no value".formatted(one.field()))
              .because(STRONG, said)
              .because(
                  records(evidence) > 1,
                  WEAK,
                  "It is so for %,d different records.".formatted(records(evidence)));
      case LOOKUP_EMPTY -> new Weighing(Cause.KEY_LACKING).because(STRONG + WEAK, said);
      case LOOKUP_AMBIGUOUS -> new Weighing(Cause.TWO_FOUND).because(PROVES, said);
      case NOT_FOUND -> notFound(evidence, one, said);
      case SHAPE_CHANGED -> new Weighing(Cause.SHAPE).because(STRONG, said);
      case NOT_YET_THERE -> new Weighing(Cause.NOT_YET).because(STRONG + WEAK, said);
      case POSSIBLE_DUPLICATE -> new Weighing(Cause.MAYBE_TWICE).because(PROVES, said);
      case UNREADABLE -> new Weighing(Cause.SOURCE_UNREADABLE).because(PROVES, said);
      case BROKE_HERE -> new Weighing(Cause.FAULT_HERE).because(PROVES, said);
      case CHANGED_MEANWHILE ->
          new Weighing(Cause.ONE_RECORD)
              .as("Others change the same records again and again")
              .because(STRONG, said);
      default -> new Weighing(Cause.UNKNOWN).because(1, said);
    };
  }

  private static Weighing named(Weighing weighing, Evidence evidence, Group one) {
    if (one.field().isEmpty()) {
      return weighing;
    }
    return weighing.as(
        "%s refuses what the rules make for “%s”"
            .formatted(evidence.name().isEmpty() ? "The target" : evidence.name(), one.field()));
  }

  /** One that is gone is another thing than all that are gone. */
  private static Weighing notFound(Evidence evidence, Group one, String said) {
    boolean placeSilent = !evidence.place().problems().isEmpty();
    if (placeSilent) {
      return new Weighing(Cause.PLACE_GONE)
          .because(STRONG, said)
          .because(STRONG, "When it was looked at: " + evidence.place().problems().getFirst());
    }
    return new Weighing(Cause.TASK_GONE)
        .because(STRONG, said)
        .because(evidence.place().answering() > 0, WEAK, "The place itself answers.")
        .although(one.effect().isEmpty(), WEAK, "It was met while reading, not while changing.");
  }

  private static Weighing shape(Evidence evidence, Group one) {
    List<String> changes = evidence.place().changes();
    List<String> same =
        changes.stream().filter(change -> mentions(change, one.field(), one.message())).toList();
    return new Weighing(Cause.SHAPE)
        .because(!same.isEmpty(), PROVES, same.isEmpty() ? "" : same.getFirst())
        .because(
            same.isEmpty() && !changes.isEmpty() && isOfTheRecord(one.kind()),
            WEAK,
            changes.isEmpty() ? "" : changes.getFirst());
  }

  private static boolean isOfTheRecord(FailureKind kind) {
    return kind == FailureKind.MAPPING_ERROR
        || kind == FailureKind.VALUE_REFUSED
        || kind == FailureKind.SHAPE_CHANGED;
  }

  private static Weighing nameGone(Evidence evidence, Group one) {
    List<String> names = evidence.place().names();
    return new Weighing(Cause.NAME_GONE)
        .because(
            !names.isEmpty()
                && (one.kind() == FailureKind.VALUE_REFUSED || one.kind() == FailureKind.NOT_FOUND),
            STRONG + WEAK + 1,
            names.isEmpty() ? "" : names.getFirst());
  }

  /** Whether two texts share a quoted word, or one holds the other's field. */
  private static boolean mentions(String change, String field, String message) {
    if (!field.isEmpty() && change.contains(field)) {
      return true;
    }
    Set<String> quoted = quoted(change);
    quoted.retainAll(quoted(message));
    return !quoted.isEmpty();
  }

  private static Set<String> quoted(String text) {
    Set<String> words = new HashSet<>();
    int from = text.indexOf('“');
    while (from >= 0) {
      int to = text.indexOf('”', from);
      if (to < 0) {
        break;
      }
      words.add(text.substring(from + 1, to));
      from = text.indexOf('“', to);
    }
    return words;
  }

  /** A version that went live shortly before the first failure, and none failed so before. */
  private static Weighing newVersion(Evidence evidence) {
    Instant first = evidence.failures().getFirst().first();
    Weighing weighing = new Weighing(Cause.NEW_VERSION);
    boolean ofRules = isOfTheRules(evidence.failures().getFirst().kind());
    for (Load bridge : evidence.bridges()) {
      bridge
          .liveSince()
          .filter(since -> ofRules && bridge.version() > 1)
          .filter(since -> TimeBetween.isShort(since, first))
          .ifPresent(
              since ->
                  weighing
                      .as(
                          "Version %d of “%s” makes what fails"
                              .formatted(bridge.version(), bridge.bridge()))
                      .because(
                          STRONG + WEAK + WEAK,
                          "Version %d of “%s” went live %s before the first of them."
                              .formatted(
                                  bridge.version(),
                                  bridge.bridge(),
                                  TimeBetween.words(since, first))));
    }
    return weighing;
  }

  private static boolean isOfTheRules(FailureKind kind) {
    return kind == FailureKind.VALUE_REFUSED
        || kind == FailureKind.MAPPING_ERROR
        || kind == FailureKind.LOOKUP_EMPTY
        || kind == FailureKind.LOOKUP_AMBIGUOUS;
  }

  private static Weighing oneRecord(Evidence evidence, Group one) {
    boolean oneOnly = records(evidence) == 1;
    boolean ofRecord =
        one.kind() == FailureKind.VALUE_REFUSED || one.kind() == FailureKind.MAPPING_ERROR;
    return new Weighing(Cause.ONE_RECORD)
        .because(
            oneOnly && ofRecord,
            STRONG + 1,
            evidence.count() == 1
                ? "Only one event waits that failed so."
                : "All %,d events are of one record.".formatted(evidence.count()))
        .although(
            oneOnly && ofRecord && evidence.ever() > evidence.count(),
            STRONG,
            "It is not the first: %,d failed so in all.".formatted(evidence.ever()));
  }
}
