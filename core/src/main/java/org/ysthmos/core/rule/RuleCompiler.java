package org.ysthmos.core.rule;

import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.Link;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Person;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Type-checks field rules and makes them into functions. A refusal is an {@link
 * IllegalArgumentException} whose message is meant for the person who writes the rule.
 */
public final class RuleCompiler {

  private final Function<Address, BoundField> binder;

  /**
   * @param binder binds an address to its shape, or throws {@link IllegalArgumentException} if
   *     nothing stands there
   */
  public RuleCompiler(Function<Address, BoundField> binder) {
    this.binder = binder;
  }

  public CompiledField compile(FieldRule rule, FieldShape target) {
    CompiledSource source = source(rule.source(), target);
    Chain chain = Chain.compile(rule.steps(), type(rule.source(), source, target));
    if (!chain.gives().equals(target.type())) {
      throw new IllegalArgumentException(
          "%s is a %s but the rule gives a %s%s"
              .formatted(
                  target.name(), target.type(), chain.gives(), remedy(chain.gives(), target)));
    }
    return CompiledField.of(target, rule, source, chain);
  }

  private static String remedy(ValueType type, FieldShape target) {
    if (type.equals(ValueType.DAY) && target.type().equals(ValueType.MOMENT)) {
      return "; say the time and the zone: at: { time: \"17:00\", zone: Europe/Lisbon }";
    }
    return "";
  }

  private static ValueType type(Source source, CompiledSource compiled, FieldShape target) {
    return switch (source) {
      case Source.Field field -> compiled.reads().getFirst().shape().type();
      case Source.SlotText text -> ValueType.TEXT;
      case Source.SlotTexts texts -> ValueType.listOf(ValueType.TEXT);
      case Source.Always always -> target.type();
    };
  }

  private CompiledSource source(Source source, FieldShape target) {
    return switch (source) {
      case Source.Field field -> binder.apply(field.address());
      case Source.SlotText text -> slots(text.template());
      case Source.SlotTexts texts ->
          new TextList(texts.templates().stream().map(this::slots).toList());
      case Source.Always always -> new Fixed(constant(always, target.type()));
    };
  }

  private Filled slots(Template template) {
    List<String> before = new ArrayList<>();
    List<BoundField> fields = new ArrayList<>();
    StringBuilder words = new StringBuilder();
    for (Template.Part part : template.parts()) {
      switch (part) {
        case Template.Words w -> words.append(w.text());
        case Template.Slot slot -> {
          BoundField field = binder.apply(slot.address());
          refuseMoment(field);
          before.add(words.toString());
          fields.add(field);
          words.setLength(0);
        }
      }
    }
    return new Filled(before, fields, words.toString());
  }

  private static void refuseMoment(BoundField field) {
    if (field.shape().type().equals(ValueType.MOMENT)) {
      throw new IllegalArgumentException(
          "“"
              + field.address()
              + "” is a moment and would read differently in each zone; say the zone in a step"
              + " first");
    }
  }

  private static Value constant(Source.Always always, ValueType type) {
    if (type.isList() != always.isList()) {
      throw new IllegalArgumentException(
          type.isList()
              ? "several values belong here; write them as a list: [first, second]"
              : "one value belongs here, not a list");
    }
    if (type.isList()) {
      ValueType element = type.element().orElseThrow();
      return new ListValue(
          element, always.written().stream().map(text -> parse(text, element)).toList());
    }
    return parse(always.written().getFirst(), type);
  }

  private static Value parse(String text, ValueType type) {
    try {
      return switch (type.kind()) {
        case TEXT -> Text.of(text);
        case NUMBER -> Decimal.parse(text);
        case FLAG -> new Flag(flag(text));
        case DAY -> Day.parse(text);
        case MOMENT -> Moment.parse(text);
        case CHOICE -> new Choice(text);
        case PERSON -> new Person(text);
        case LINK -> new Link(URI.create(text), text);
        case LIST, NOTHING -> throw new IllegalArgumentException("a list stands in no list");
      };
    } catch (NumberFormatException | java.time.DateTimeException e) {
      throw new IllegalArgumentException("“" + text + "” is no " + type, e);
    }
  }

  private static boolean flag(String text) {
    return switch (text) {
      case "yes", "true" -> true;
      case "no", "false" -> false;
      default ->
          throw new IllegalArgumentException(Nearest.unknown("flag", text, List.of("yes", "no")));
    };
  }

  /** A constant. */
  private record Fixed(Value value) implements CompiledSource {
    @Override
    public Computed read(Reading reading) {
      return value;
    }

    @Override
    public List<BoundField> reads() {
      return List.of();
    }
  }

  /** A text with its slots: words, field, words, field, …, words. */
  private record Filled(List<String> before, List<BoundField> reads, String after)
      implements CompiledSource {
    @Override
    public Computed read(Reading reading) {
      StringBuilder text = new StringBuilder(96);
      for (int i = 0; i < reads.size(); i++) {
        text.append(before.get(i));
        switch (reads.get(i).read(reading)) {
          case Value value -> text.append(value.display());
          case Warned warned -> text.append(warned.value().display());
          case Problem problem -> {
            return problem;
          }
        }
      }
      return Text.of(text.append(after).toString());
    }

    /**
     * Whether there are slots and all of them are blank. A problem is not blank: it must be told.
     */
    boolean isEmptyIn(Reading reading) {
      for (BoundField field : reads) {
        if (!(field.read(reading) instanceof Value value) || !value.display().isBlank()) {
          return false;
        }
      }
      return !reads.isEmpty();
    }
  }

  /** Several texts with slots. */
  private record TextList(List<Filled> items) implements CompiledSource {
    @Override
    public Computed read(Reading reading) {
      List<Value> texts = new ArrayList<>(items.size());
      for (Filled item : items) {
        if (item.isEmptyIn(reading)) {
          continue;
        }
        Computed text = item.read(reading);
        if (!(text instanceof Value value)) {
          return text;
        }
        texts.add(value);
      }
      return texts.isEmpty() ? Nothing.NOTHING : new ListValue(ValueType.TEXT, texts);
    }

    @Override
    public List<BoundField> reads() {
      return items.stream().flatMap(item -> item.reads().stream()).distinct().toList();
    }
  }
}
