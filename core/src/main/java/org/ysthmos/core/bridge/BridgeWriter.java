package org.ysthmos.core.bridge;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.condition.ConditionDocument;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentText;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.RuleDocument;
import org.ysthmos.core.rule.ValueRule;

/**
 * Writes a bridge as its document. Reading what was written gives the same definition; writing what
 * was read gives the same text, once it has been written by this.
 */
public final class BridgeWriter {

  private BridgeWriter() {}

  public static String write(BridgeDefinition bridge) {
    return DocumentText.write(document(bridge));
  }

  private static SequencedMap<String, Object> document(BridgeDefinition bridge) {
    SequencedMap<String, Object> document = new LinkedHashMap<>();
    document.put("bridge", bridge.id());
    document.put("name", bridge.name());
    document.put("purpose", bridge.purpose());
    if (bridge.between().isPresent()) {
      TwoWayDocument.write(bridge.between().get(), document);
    } else {
      oneWay(bridge, document);
    }
    bridge
        .ceiling()
        .ifPresent(ceiling -> document.put("ceiling", CeilingDocument.written(ceiling)));
    bridge
        .duplicates()
        .ifPresent(one -> document.put("duplicates", DuplicatesDocument.written(one)));
    return document;
  }

  private static void oneWay(BridgeDefinition bridge, SequencedMap<String, Object> document) {
    document.put("from", FromDocument.write(bridge.from()));
    document.put("to", to(bridge.to(), bridge.from()));
    if (!bridge.lookups().isEmpty()) {
      SequencedMap<String, Object> lookups = new LinkedHashMap<>();
      bridge.lookups().forEach(rule -> lookups.put(rule.name(), lookup(rule)));
      document.put("lookups", lookups);
    }
    if (!bridge.values().isEmpty()) {
      document.put("values", rules(bridge.values()));
    }
    if (!bridge.when().equals(Condition.ALWAYS)) {
      document.put("when", ConditionDocument.written(bridge.when()));
    }
    document.put("match", bridge.match().stream().map(Address::toString).toList());
    PlanDocument.write(bridge.plan(), document);
    document.put("fields", fields(bridge.fields()));
    if (!bridge.then().isEmpty()) {
      SequencedMap<String, Object> then = new LinkedHashMap<>();
      bridge.then().forEach(effect -> then.put(effect.name(), effect(effect, bridge.from())));
      document.put("then", then);
    }
  }

  private static Object to(BridgeDefinition.To to, BridgeDefinition.From from) {
    if (to.isRecordOf(from)) {
      return BridgeReader.RECORD;
    }
    SequencedMap<String, Object> place = new LinkedHashMap<>();
    place.put("system", to.system());
    place.put(
        "collection", to.place().<Object>map(PlacesDocument::write).orElseGet(to::collection));
    if (to.ifGone() != BridgeDefinition.IfGone.ASK) {
      place.put("if-gone", DocumentNode.wordOf(to.ifGone()));
    }
    to.record().ifPresent(record -> place.put("record", record.toString()));
    return place;
  }

  private static SequencedMap<String, Object> effect(
      BridgeDefinition.Effect effect, BridgeDefinition.From from) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    written.put("to", to(effect.to(), from));
    if (!effect.when().equals(Condition.ALWAYS)) {
      written.put("when", ConditionDocument.written(effect.when()));
    }
    if (!effect.match().isEmpty()) {
      written.put("match", effect.match().stream().map(Address::toString).toList());
    }
    written.put("fields", fields(effect.fields()));
    return written;
  }

  private static Object lookup(LookupRule rule) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    written.put("in", in(rule));
    if (rule.origin() != LookupRule.Origin.SYSTEM) {
      written.put("from", DocumentNode.wordOf(rule.origin()));
    }
    written.put("by", rules(rule.by()));
    rule.waits().ifPresent(wait -> written.put("wait", wait.toString()));
    written.put("none", DocumentNode.wordOf(rule.none()));
    rule.several().firstBy().ifPresent(field -> written.put("several", several(rule, field)));
    return written;
  }

  private static String in(LookupRule rule) {
    if (rule.here()) {
      return Address.PLACE;
    }
    return rule.origin() == LookupRule.Origin.TASKS
        ? rule.collection()
        : rule.system() + "/" + rule.collection();
  }

  private static Object several(LookupRule rule, Pointer field) {
    SequencedMap<String, Object> several = new LinkedHashMap<>();
    several.put("first-by", field.toString());
    if (rule.several().descending()) {
      several.put("descending", true);
    }
    return several;
  }

  private static SequencedMap<String, Object> rules(SequencedMap<String, ValueRule> rules) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    rules.forEach((name, rule) -> written.put(name, RuleDocument.written(rule)));
    return written;
  }

  static SequencedMap<String, Object> fields(List<FieldRule> fields) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    fields.forEach(rule -> written.put(rule.field(), RuleDocument.written(rule.value())));
    return written;
  }
}
