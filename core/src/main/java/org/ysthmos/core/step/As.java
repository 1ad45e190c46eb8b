package org.ysthmos.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.SequencedMap;
import java.util.Set;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Link;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Takes a value as another type that is written alike; nothing about it changes.
 *
 * @param schemes schemes that a link may have beside the usual ones
 */
public record As(To to, List<String> schemes) implements Step {

  /** What a value can be taken as. */
  public enum To {
    TEXT,
    CHOICE,
    PERSON,
    LINK;

    private ValueType type() {
      return switch (this) {
        case TEXT -> ValueType.TEXT;
        case CHOICE -> ValueType.CHOICE;
        case PERSON -> ValueType.PERSON;
        case LINK -> ValueType.LINK;
      };
    }
  }

  static final StepKind KIND =
      StepKind.of(
              "as",
              StepKind.Family.TABLE,
              "Takes a text as the key of a choice or a person, or as a link; or such a key, a"
                  + " number, a day or a link as a text. In a list, each item.")
          .bare(Option.required("to", Option.Words.of(To.class), "what it is taken as"))
          .example("as: person", "tb-07", "tb-07")
          .example("as: link", "not a link", "“not a link” is no absolute address")
          .with(
              Option.optional(
                  "schemes",
                  Option.Plain.TEXTS,
                  "schemes that a link may have beside http, https, mailto and tel"))
          .example(
              "as: link",
              "javascript:alert(1)",
              "“javascript:alert(1)” is no link to follow: “javascript:” is not among http, https, mailto, tel and what is stated")
          .example(
              "as: { to: link, schemes: [sftp] }",
              "sftp://plans.example/fern",
              "sftp://plans.example/fern")
          .reads(As::read);

  public As {
    schemes = List.copyOf(schemes);
  }

  public static As to(To to) {
    return new As(to, List.of());
  }

  private static Step read(StepOptions options) {
    To to = options.node("to").word(To.class);
    if (options.has("schemes") && to != To.LINK) {
      throw options.node("schemes").refuse("only a link has a scheme");
    }
    return new As(to, options.get("schemes").map(DocumentNode::schemes).orElse(List.of()));
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.and(Written.of("to", DocumentNode.wordOf(to)), "schemes", schemes, List.of());
  }

  @Override
  public String sentence() {
    return "as a " + to.type();
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    ValueType from = in.element().orElse(in);
    Step.needs(
        fits(from),
        in,
        to == To.TEXT ? "a value that is written one way" : "a text",
        from.equals(ValueType.MOMENT)
            ? "a moment is written in a stated zone (write)"
            : "put it into a text first (put: \"{value}\")");
    return in.isList()
        ? Compiled.of(ValueType.listOf(to.type()), (value, reading) -> each((ListValue) value))
        : Compiled.of(to.type(), (value, reading) -> one(value));
  }

  private boolean fits(ValueType from) {
    if (to == To.TEXT) {
      return from.isSimple() && !from.equals(ValueType.MOMENT);
    }
    return switch (from.kind()) {
      case TEXT, CHOICE, PERSON -> true;
      case LINK -> to == To.LINK;
      default -> false;
    };
  }

  private Computed each(ListValue list) {
    List<Value> items = new ArrayList<>(list.items().size());
    for (Value item : list.items()) {
      switch (one(item)) {
        case Problem problem -> {
          return problem;
        }
        case Warned warned -> items.add(warned.value());
        case Value value -> items.add(value);
      }
    }
    return new ListValue(to.type(), items);
  }

  private Computed one(Value value) {
    if (value.type().equals(to.type())) {
      return value;
    }
    String text = value.display();
    if (to != To.LINK) {
      return Constant.parse(text, to.type());
    }
    try {
      return Link.of(WhiteSpace.strip(text), Set.copyOf(schemes));
    } catch (IllegalArgumentException notALink) {
      return new Problem(
          String.valueOf(notALink.getMessage()),
          text,
          "Correct the address at its source; it starts with https:// or another stated scheme");
    }
  }
}
