package org.ysthmos.core.recall;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.gateway.CollectionRef;

/**
 * What is done about each record that effects made or changed. A record that was made in the span
 * goes whole, whatever was changed of it since; one that was there before holds again what it held,
 * as far as that is known, and is named otherwise.
 */
public final class RecallPlan {

  private RecallPlan() {}

  /** What a collection lets be done with its records. */
  public record Able(boolean removes, boolean closes, boolean changes) {}

  /**
   * What is done about one record.
   *
   * @param effect the effect that made it; the last one that changed it where it was there before
   * @param because why nothing else can be done; empty if it can be taken away
   * @param changes how many effects changed it after it was made, or at all
   * @param before what it held before that, where it was there before
   */
  public record Step(
      MadeEffect effect, RecallWay way, String because, int changes, PutBack before) {}

  /**
   * @param effects in any order; taking away is no effect that can be taken back and is left out
   * @param able what each collection allows
   * @param before what a record held before the effects that changed it
   * @return a step for each record, the one that was made last first, so that what stands under
   *     another record comes before it
   */
  public static List<Step> of(
      List<MadeEffect> effects,
      Function<CollectionRef, Able> able,
      Function<List<MadeEffect>, PutBack> before) {
    Map<String, List<MadeEffect>> byRecord = new LinkedHashMap<>();
    effects.stream()
        .filter(effect -> effect.kind() != EffectKind.REMOVE)
        .sorted(Comparator.comparingLong(MadeEffect::delivery))
        .forEach(
            effect ->
                byRecord
                    .computeIfAbsent(
                        effect.pair() + "\n" + effect.record(), any -> new ArrayList<>())
                    .add(effect));
    return byRecord.values().stream()
        .map(of -> step(of, able, before))
        .sorted(Comparator.comparingLong((Step step) -> step.effect().delivery()).reversed())
        .toList();
  }

  private static Step step(
      List<MadeEffect> effects,
      Function<CollectionRef, Able> able,
      Function<List<MadeEffect>, PutBack> before) {
    int changes = (int) effects.stream().filter(one -> one.kind() == EffectKind.CHANGE).count();
    return effects.stream()
        .filter(one -> one.kind() != EffectKind.CHANGE)
        .findFirst()
        .map(made -> made(made, changes, able.apply(made.at())))
        .orElseGet(() -> changed(effects, changes, able.apply(effects.getLast().at()), before));
  }

  private static Step changed(
      List<MadeEffect> effects,
      int changes,
      Able able,
      Function<List<MadeEffect>, PutBack> before) {
    MadeEffect last = effects.getLast();
    if (!able.changes()) {
      return named(last, "It was there before; nothing can be changed there any more", changes);
    }
    PutBack held = before.apply(effects);
    if (!held.fields().isEmpty()) {
      return new Step(last, RecallWay.PUT_BACK, "", changes, held);
    }
    return named(
        last,
        held.unknown().isEmpty() && !held.since().isEmpty()
            ? "It was there before; what was changed was written anew since"
            : "It was there before and was changed; what it held before is not known",
        changes);
  }

  private static Step named(MadeEffect effect, String because, int changes) {
    return new Step(effect, RecallWay.NAME, because, changes, PutBack.NONE);
  }

  private static Step made(MadeEffect made, int changes, Able able) {
    if (able.removes()) {
      return new Step(made, RecallWay.TAKE_AWAY, "", changes, PutBack.NONE);
    }
    if (made.kind() == EffectKind.MESSAGE) {
      return named(made, "What was said cannot be taken back there", changes);
    }
    return able.closes()
        ? new Step(
            made,
            RecallWay.CLOSE,
            "Nothing can be taken away there, so it is closed",
            changes,
            PutBack.NONE)
        : named(
            made, "Its system says neither how one is taken away nor how one is closed", changes);
  }
}
