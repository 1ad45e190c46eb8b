package org.ysthmos.core.loop;

import java.util.ArrayList;
import java.util.List;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledEffect;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.shape.CollectionShape;

/**
 * One thing that a bridge does with what it hears: its tasks, or one of what comes then.
 *
 * @param effect the name of what comes then; empty for its tasks
 * @param makes whether it makes records; otherwise it changes one that is there, such as the very
 *     record that it heard of
 * @param fields the rules of what it writes
 */
record Arm(
    BridgeVersion bridge,
    String effect,
    CollectionRef from,
    CollectionRef to,
    boolean makes,
    List<CompiledField> fields) {

  /** A bridge that keeps two places alike reaches from each of them to the other. */
  static List<Arm> of(BridgeVersion bridge) {
    return bridge.views().stream().flatMap(view -> ofOneWay(view).stream()).toList();
  }

  private static List<Arm> ofOneWay(BridgeVersion bridge) {
    BridgeDefinition definition = bridge.definition();
    CollectionRef from =
        new CollectionRef(definition.from().system(), definition.from().collection());
    List<Arm> arms = new ArrayList<>();
    arms.add(
        new Arm(
            bridge,
            "",
            from,
            at(bridge.target()),
            !definition.to().changes(),
            bridge.plan().allFields()));
    for (CompiledEffect then : bridge.then()) {
      arms.add(
          new Arm(
              bridge,
              then.rule().name(),
              from,
              at(then.target()),
              !then.rule().to().changes(),
              then.fields()));
    }
    return arms;
  }

  private static CollectionRef at(CollectionShape shape) {
    return new CollectionRef(shape.system(), shape.collection());
  }

  String id() {
    return bridge.definition().id();
  }

  String name() {
    return bridge.definition().name();
  }

  /** What it is told of rows that come round makes no task. */
  private List<String> hears() {
    if (bridge.chores().isPresent()) {
      return List.of();
    }
    return bridge.definition().from().events();
  }

  /** Whether another hears of what this one makes, or changes if it makes nothing. */
  boolean isHeardAtOnceBy(Arm next, Tells tells) {
    return makes
        ? next.hears().contains("created")
            || (next.hears().contains("changed") && tells.makingIsChanging(to))
        : next.hears().contains("changed");
  }

  /** Whether another hears of anything that this one writes, sooner or later. */
  boolean leadsTo(Arm next, Tells tells) {
    return to.equals(next.from)
        && (isHeardAtOnceBy(next, tells) || next.hears().contains("changed"));
  }
}
