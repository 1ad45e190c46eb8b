package org.ysthmos.core.step;

import java.util.List;
import java.util.SequencedMap;
import java.util.stream.Stream;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Takes one item of a list, or the first few; nothing if the list is too short for the one.
 *
 * @param which the item
 * @param place the item's place or how many are taken, counted from 1
 */
public record Take(Which which, int place) implements Step {

  /** Which item is taken. */
  public enum Which {
    FIRST,
    LAST,
    NTH,
    AT_MOST
  }

  static final StepKind KIND =
      StepKind.of("take", StepKind.Family.LIST, "Takes one item of a list, or the first few.")
          .bare(
              Option.optional(
                  "item", new Option.Words(List.of("first", "last")), "which end is taken from"))
          .with(Option.optional("nth", Option.Plain.WHOLE_NUMBER, "the item's place, from 1"))
          .with(
              Option.optional(
                  "at-most", Option.Plain.WHOLE_NUMBER, "the first so many, as a list; warns"))
          .example("take: first", ListValue.ofTexts("Rui", "Inês"), "Rui")
          .example("take: { nth: 2 }", ListValue.ofTexts("Rui", "Inês"), "Inês")
          .example("take: { nth: 3 }", ListValue.ofTexts("Rui", "Inês"), "")
          .example("take: { at-most: 1 }", ListValue.ofTexts("Rui", "Inês"), "Rui")
          .reads(Take::read);

  private static Step read(StepOptions options) {
    List<String> given = Stream.of("item", "nth", "at-most").filter(options::has).toList();
    if (given.size() != 1) {
      throw options.refuse("write one of: take: first, take: last, nth or at-most");
    }
    return switch (given.getFirst()) {
      case "nth" -> new Take(Which.NTH, options.whole("nth", 1, ListValue.MOST));
      case "at-most" -> new Take(Which.AT_MOST, options.whole("at-most", 1, ListValue.MOST));
      default -> {
        Which which = options.node("item").word(Which.class);
        if (which != Which.FIRST && which != Which.LAST) {
          throw options.refuse("“nth” and “at-most” need a number");
        }
        yield new Take(which, 1);
      }
    };
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return switch (which) {
      case FIRST, LAST -> Written.of("item", DocumentNode.wordOf(which));
      case NTH -> Written.of("nth", place);
      case AT_MOST -> Written.of("at-most", place);
    };
  }

  @Override
  public String sentence() {
    return switch (which) {
      case FIRST -> "the first item";
      case LAST -> "the last item";
      case NTH -> "item " + place;
      case AT_MOST -> place == 1 ? "at most 1 item" : "at most " + place + " items";
    };
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    ValueType element = Step.needsList(in);
    return Compiled.of(
        which == Which.AT_MOST ? in : element, (value, reading) -> take((ListValue) value));
  }

  private Computed take(ListValue list) {
    List<Value> items = list.items();
    return switch (which) {
      case FIRST -> items.isEmpty() ? Nothing.NOTHING : items.getFirst();
      case LAST -> items.isEmpty() ? Nothing.NOTHING : items.getLast();
      case NTH -> items.size() < place ? Nothing.NOTHING : items.get(place - 1);
      case AT_MOST ->
          items.size() <= place
              ? list
              : new Warned(
                  new ListValue(list.element(), items.subList(0, place)),
                  "only the first %d of %d items are taken".formatted(place, items.size()));
    };
  }
}
