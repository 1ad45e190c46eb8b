package org.ysthmos.core.step;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.table.NotFound;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Looks the value up in a reference table.
 *
 * @param with the fields that fill the second key column and those behind it
 * @param take the column whose value is taken; empty if the table has one
 * @param notFound the answer for a key that is not there; empty for the table's own
 */
public record ByTable(
    String table, List<Address> with, Optional<String> take, Optional<NotFound> notFound)
    implements Step {

  static final StepKind KIND =
      StepKind.of(
              "by-table",
              StepKind.Family.TABLE,
              "Looks the value up in a reference table; in a list, each item.")
          .bare(Option.required("table", Option.Plain.TABLE, "the table's id"))
          .with(
              Option.optional(
                  "with",
                  Option.Plain.ADDRESSES,
                  "the fields for the key columns behind the first"))
          .with(
              Option.optional(
                  "take", Option.Plain.TEXT, "the column taken, where there is more than one"))
          .with(
              Option.optional(
                  "not-found",
                  Option.Plain.NOT_FOUND,
                  "`fail`, `empty`, `pass-through` or `{ use: … }`; the table's own if not said"))
          .example("by-table: stewards", "Olive@Tidewrack.example", "tb-07")
          .example(
              "by-table: { table: stewards, not-found: { use: tb-01 } }",
              "new@tidewrack.example",
              "tb-01")
          .example(
              "by-table: { table: stewards, not-found: fail }",
              "new@tidewrack.example",
              "“new@tidewrack.example” is not in the table Stewards")
          .reads(
              options ->
                  new ByTable(
                      options.text("table"),
                      options
                          .get("with")
                          .map(node -> node.list().stream().map(Address::read).toList())
                          .orElse(List.of()),
                      options.get("take").map(DocumentNode::text),
                      options.get("not-found").map(NotFound::read)));

  public ByTable {
    with = List.copyOf(with);
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.of("table", table);
    Written.and(options, "with", with.stream().map(Address::toString).toList(), List.of());
    take.ifPresent(column -> options.put("take", column));
    notFound.ifPresent(answer -> options.put("not-found", answer.toDocument()));
    return options;
  }

  @Override
  public String sentence() {
    String more =
        with.isEmpty()
            ? ""
            : " with " + String.join(" and ", with.stream().map(Address::toString).toList());
    return "looked up in %s%s%s%s"
        .formatted(
            table,
            more,
            take.map(column -> " → " + column).orElse(""),
            notFound.map(answer -> "; if not found, " + answer.sentence()).orElse(""));
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    ValueType key = in.element().orElse(in);
    Step.needs(
        key.isSimple(), in, "a value to look up", "point to one of the record's fields instead");
    TableDefinition definition = scope.table(table);
    if (definition.keys().size() != with.size() + 1) {
      throw new Misfit(
          "gives %d keys but %s has the key columns %s"
              .formatted(with.size() + 1, definition.name(), String.join(", ", definition.keys())));
    }
    List<BoundField> more = with.stream().map(scope::bind).toList();
    String column = column(definition);
    ValueType gives = Objects.requireNonNull(definition.values().get(column));
    NotFound answer = answer(definition);
    TableLookup lookup =
        new TableLookup(
            definition,
            more,
            List.copyOf(definition.values().sequencedKeySet()).indexOf(column),
            gives,
            answer,
            fallback(answer, key, gives));
    return in.isList()
        ? Compiled.of(ValueType.listOf(gives), lookup::each)
        : Compiled.of(gives, lookup::one);
  }

  private String column(TableDefinition definition) {
    if (take.isEmpty()) {
      if (definition.values().size() > 1) {
        throw new Misfit(
            "takes one column; say which with take: "
                + String.join(", ", definition.values().keySet()));
      }
      return definition.values().firstEntry().getKey();
    }
    if (!definition.values().containsKey(take.get())) {
      throw new Misfit(
          Nearest.unknown(
              "value column of " + definition.name(), take.get(), definition.values().keySet()));
    }
    return take.get();
  }

  private NotFound answer(TableDefinition definition) {
    return notFound
        .or(definition::notFound)
        .orElseThrow(
            () ->
                new Misfit(
                    "does not say what happens if the key is not found; write not-found: fail,"
                        + " empty, pass-through or { use: … }"));
  }

  private static Value fallback(NotFound answer, ValueType key, ValueType gives) {
    return switch (answer) {
      case NotFound.Use use -> Misfit.at("not-found", () -> Constant.parse(use.written(), gives));
      case NotFound.PassThrough pass when !key.equals(gives) && !isKeyed(gives) ->
          throw new Misfit(
              "passes a %s through where the table gives a %s; state another answer for not-found"
                  .formatted(key, gives));
      default -> Nothing.NOTHING;
    };
  }

  /** Whether any key can stand for a value of the type. */
  private static boolean isKeyed(ValueType type) {
    return type.equals(ValueType.TEXT)
        || type.equals(ValueType.CHOICE)
        || type.equals(ValueType.PERSON);
  }
}
