package org.ysthmos.core.reference;

import static org.ysthmos.core.reference.SchemaParts.JSON;
import static org.ysthmos.core.reference.SchemaParts.arrayOf;
import static org.ysthmos.core.reference.SchemaParts.flag;
import static org.ysthmos.core.reference.SchemaParts.group;
import static org.ysthmos.core.reference.SchemaParts.named;
import static org.ysthmos.core.reference.SchemaParts.oneOf;
import static org.ysthmos.core.reference.SchemaParts.ref;
import static org.ysthmos.core.reference.SchemaParts.text;
import static org.ysthmos.core.reference.SchemaParts.types;
import static org.ysthmos.core.reference.SchemaParts.whole;
import static org.ysthmos.core.reference.SchemaParts.words;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.CeilingDocument;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.bridge.TaskPlan;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.likeness.TitleLikeness;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.OffDays;
import org.ysthmos.core.reference.SchemaParts.Group;
import org.ysthmos.core.sync.BothChanged;
import org.ysthmos.core.sync.Direction;
import org.ysthmos.core.sync.Drift;
import org.ysthmos.core.sync.WhenGone;

/**
 * The JSON Schema (2020-12) of bridge documents, made from the same descriptions that read them. It
 * says what can be said of a document by itself; whether its addresses and types fit is said when
 * it is compiled.
 */
public final class BridgeSchema {

  private static final String ID_PATTERN = "^[a-z0-9]+(-[a-z0-9]+)*$";

  private BridgeSchema() {}

  public static ObjectNode write() {
    ObjectNode schema = JSON.objectNode();
    schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
    schema.put("$id", "urn:ysthmos:bridge:1");
    schema.put("title", "A bridge");
    schema.put("type", "object");
    schema.putObject("if").putArray("required").add("between");
    schema.set("then", bothWays());
    schema.set("else", oneWay());
    ObjectNode defs = schema.putObject("$defs");
    defs.set("id", text().put("pattern", ID_PATTERN).put("maxLength", 64));
    defs.set("scalar", types("string", "number", "boolean"));
    defs.set("texts", oneOf(ref("scalar"), arrayOf(ref("scalar"))));
    defs.set("address", text().put("pattern", "^[^/]*/"));
    defs.set(
        "operand", oneOf(ref("scalar"), group("value", ref("address")).required("value").node()));
    ObjectNode number = types("number", "string");
    defs.set("amount", oneOf(number, inField(number)));
    defs.set("time", oneOf(text(), inField(text())));
    defs.set(
        "texted",
        oneOf(
            ref("scalar"),
            group("text", ref("scalar")).and("locale", text()).required("text").node(),
            group("value", ref("address")).and("locale", text()).required("value").node()));
    defs.set("notFound", notFound());
    defs.set(
        "bands",
        JSON.objectNode()
            .put("type", "object")
            .put("minProperties", 1)
            .set("additionalProperties", ref("scalar")));
    defs.set("operator", group().with(StepSchema.operators()).node().put("minProperties", 1));
    defs.set("condition", condition());
    defs.set("steps", arrayOf(ref("step")));
    defs.set("rule", rule());
    defs.set("fields", named(ref("rule"), false));
    defs.set("step", StepSchema.steps());
    return schema;
  }

  /** What every bridge says, whichever way it goes. */
  private static Group bridge() {
    return group("bridge", ref("id"))
        .and("name", text().put("minLength", 1))
        .and("purpose", text())
        .and("ceiling", ceiling());
  }

  private static ObjectNode bothWays() {
    ObjectNode at =
        oneOf(text(), group("field", text()).and("read", text()).required("field").node());
    ObjectNode becomes =
        oneOf(
            JSON.objectNode().put("const", "same"),
            JSON.objectNode().put("const", "its-pair"),
            group("steps", ref("steps")).required("steps").node(),
            group("values", named(ref("scalar"), false))
                .and("otherwise", ref("scalar"))
                .required("values")
                .node());
    ObjectNode field =
        group("left", at)
            .and("right", at)
            .and("direction", words(Direction.class))
            .and("to-right", becomes)
            .and("to-left", becomes)
            .and("both-changed", words(BothChanged.class))
            .and("drift", words(Drift.class))
            .node();
    return bridge()
        .and(
            "between",
            group("left", keptPlace())
                .and("right", keptPlace())
                .and("check", group("every", text()).and("times", times()).node())
                .required("left", "right")
                .node())
        .and("fields", named(field, true))
        .required("bridge", "name", "purpose", "between", "fields")
        .node();
  }

  /** Times that come round; see {@link org.ysthmos.core.recurrence.RecurrenceDocument}. */
  private static ObjectNode times() {
    return group("rule", text())
        .and("zone", text())
        .and("start", text())
        .and("last", text())
        .and("without", ref("texts"))
        .and("also", ref("texts"))
        .and("off-days", words(OffDays.class))
        .and("calendar", text())
        .required("rule", "zone", "start")
        .node();
  }

  /** How each record comes round; a text is meant itself, unless it is an address. */
  private static ObjectNode chores() {
    ObjectNode said = JSON.objectNode();
    said.putArray("anyOf").add(ref("scalar")).add(ref("rule"));
    return group("every", said)
        .and("zone", said)
        .and("at", said)
        .and("start", said)
        .and("done", said)
        .and("lead", said)
        .and("off-days", words(OffDays.class))
        .and("calendar", text())
        .and("spread", text())
        .required("every", "zone")
        .node();
  }

  private static ObjectNode keptPlace() {
    ObjectNode ifGone = JSON.objectNode();
    ArrayNode words = ifGone.putArray("enum");
    for (WhenGone one : WhenGone.values()) {
      words.add(DocumentNode.wordOf(one));
    }
    return place()
        .and("event", ref("texts"))
        .and("every", text())
        .and("when", ref("condition"))
        .and("begins", flag())
        .and("if-gone", ifGone)
        .required("event")
        .node();
  }

  private static ObjectNode oneWay() {
    Group group =
        bridge()
            .and(
                "from",
                oneOf(
                    place()
                        .and("event", ref("texts"))
                        .and("every", text())
                        .and("own-writes", flag())
                        .and("chores", chores())
                        .and("catch-up", words(CatchUp.class))
                        .required("event")
                        .node(),
                    group("system", text())
                        .and("places", places())
                        .and("event", ref("texts"))
                        .and("every", text())
                        .and("own-writes", flag())
                        .required("system", "places", "event")
                        .node(),
                    group("times", times())
                        .and("catch-up", words(CatchUp.class))
                        .required("times")
                        .node()))
            .and("to", to(target().and("if-gone", words(BridgeDefinition.IfGone.class))))
            .and("lookups", named(lookup(), true))
            .and("values", named(ref("rule"), true))
            .and("when", ref("condition"))
            .and("match", arrayOf(ref("address")).put("minItems", 1))
            .and(
                "for-each",
                group("list", ref("rule")).and("key", ref("address")).required("list").node())
            .and("set", set())
            .and("fields", ref("fields"))
            .and("then", named(effect(), true))
            .and("duplicates", duplicates())
            .required("bridge", "name", "purpose", "from", "to", "match", "fields");
    ObjectNode schema = group.node();
    // A task for each item, or a set, or one; never two of them.
    schema.putObject("not").putArray("required").add("for-each").add("set");
    return schema;
  }

  private static Group place() {
    return group("system", text()).and("collection", text()).required("system", "collection");
  }

  /** Several places of a system, by what they are named. */
  private static ObjectNode places() {
    ObjectNode places =
        group("of", text())
            .and("named", ref("texts"))
            .and("all", ref("texts"))
            .and("table", text())
            .and("column", text())
            .and("left-out", ref("texts"))
            .node();
    ArrayNode ways = places.putArray("oneOf");
    List.of("named", "all", "table").forEach(way -> ways.addObject().putArray("required").add(way));
    return places;
  }

  /** A place that is written to, or the column of a table that names it. */
  private static Group target() {
    return group("system", text())
        .and(
            "collection",
            oneOf(text(), group("of", text()).and("take", text()).required("take").node()))
        .required("system", "collection");
  }

  /**
   * A place, perhaps with a record that is changed there, or the record that the event came from.
   */
  private static ObjectNode to(Group place) {
    return oneOf(
        JSON.objectNode().put("const", "record"), place.and("record", ref("address")).node());
  }

  private static ObjectNode effect() {
    return group("to", to(target()))
        .and("when", ref("condition"))
        .and("match", arrayOf(ref("address")).put("minItems", 1))
        .and("fields", ref("fields"))
        .required("to", "fields")
        .node();
  }

  private static ObjectNode lookup() {
    return group("in", text().put("pattern", "^[^/]+(/[^/]+)?$"))
        .and("from", words(LookupRule.Origin.class))
        .and("by", named(ref("rule"), false).put("minProperties", 1))
        .and("wait", text())
        .and("none", words(LookupRule.NoneFound.class))
        .and(
            "several",
            oneOf(
                JSON.objectNode().put("const", "fail"),
                group("first-by", ref("address"))
                    .and("descending", flag())
                    .required("first-by")
                    .node()))
        .required("in", "by")
        .node();
  }

  private static ObjectNode duplicates() {
    ObjectNode likeness =
        JSON.objectNode()
            .put("type", "number")
            .put("minimum", TitleLikeness.LEAST)
            .put("maximum", 1);
    return group("compare", arrayOf(text()))
        .and("wait-at", likeness)
        .node()
        .put("minProperties", 1);
  }

  private static ObjectNode ceiling() {
    Group group = group("per", text()).required("per");
    ArrayNode oneOfThem = JSON.arrayNode();
    CeilingDocument.least()
        .forEach(
            (key, least) -> {
              group.and(key, JSON.objectNode().put("type", "integer").put("minimum", least));
              oneOfThem.addObject().putArray("required").add(key);
            });
    return group.node().set("anyOf", oneOfThem);
  }

  private static ObjectNode set() {
    ObjectNode offset =
        oneOf(
            text(),
            group("working-days", whole())
                .and("calendar", ref("texts"))
                .required("working-days", "calendar")
                .node());
    ObjectNode member =
        group("offset", offset)
            .and("parent", ref("id"))
            .and("fields", ref("fields"))
            .required("offset")
            .node();
    return group("anchor", ref("rule"))
        .and("no-anchor", words(TaskPlan.NoAnchor.class))
        .and("tasks", named(member, true).put("minProperties", 1))
        .required("anchor", "tasks")
        .node();
  }

  private static ObjectNode condition() {
    ObjectNode changed =
        oneOf(
            JSON.objectNode().put("const", true),
            group("from", ref("texts")).and("to", ref("texts")).and("was", ref("address")).node());
    ObjectNode all = arrayOf(ref("condition"));
    return oneOf(
        group("all", all).required("all").node(),
        group("any", all).required("any").node(),
        group("not", ref("condition")).required("not").node(),
        group("value", ref("address")).and("changed", changed).required("value", "changed").node(),
        group("value", ref("address"))
            .and("steps", ref("steps"))
            .with(StepSchema.operators())
            .required("value")
            .node()
            .put("minProperties", 2));
  }

  private static ObjectNode rule() {
    ObjectNode oneCase =
        group("when", ref("condition")).and("then", ref("rule")).required("when", "then").node();
    ObjectNode each =
        group("in", ref("address"))
            .and("where", ref("condition"))
            .and("take", ref("rule"))
            .required("in", "take")
            .node();
    return oneOf(
        ref("address"),
        source("value", ref("address")).node(),
        source("text", ref("scalar")).node(),
        source("texts", arrayOf(ref("scalar"))).node(),
        source("always", ref("texts")).node(),
        source("cases", arrayOf(oneCase)).and("otherwise", ref("rule")).node(),
        source("each", each).node());
  }

  private static Group source(String name, ObjectNode schema) {
    return group(name, schema).and("steps", ref("steps")).required(name);
  }

  /** What stands in a field, and what is used where that is of no use. */
  private static ObjectNode inField(ObjectNode otherwise) {
    return group("value", ref("address")).and("otherwise", otherwise).required("value").node();
  }

  private static ObjectNode notFound() {
    ObjectNode words = JSON.objectNode();
    words.putArray("enum").add("fail").add("empty").add("pass-through");
    return oneOf(words, group("use", ref("scalar")).required("use").node());
  }
}
