package org.ysthmos.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import java.util.function.Function;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/**
 * A step as documents know it. The reference page and the JSON Schema are made from these, and a
 * test runs each example.
 *
 * @param name the key in a bridge document
 * @param family the heading under which the reference page has it
 * @param summary what it does, one sentence
 * @param bare whether the first option may stand under the step's name by itself
 * @param testing whether the keys of an operator stand among the options
 */
public record StepKind(
    String name,
    Family family,
    String summary,
    boolean bare,
    boolean testing,
    List<Option> options,
    List<Example> examples,
    Function<StepOptions, Step> read) {

  /** What steps are mostly for. */
  public enum Family {
    TEXT("Text"),
    NUMBER("Numbers"),
    DATE("Days and moments"),
    TABLE("Choices and people"),
    LIST("Lists"),
    ANY("Any value");

    private final String title;

    Family(String title) {
      this.title = title;
    }

    public String title() {
      return title;
    }
  }

  /**
   * How a step is written, and what it makes of a value.
   *
   * @param gives the value as it is displayed, or the message of the problem
   */
  public record Example(String written, Value in, String gives) {}

  public StepKind {
    options = List.copyOf(options);
    examples = List.copyOf(examples);
  }

  /** Whether the step may be written as its name alone. */
  public boolean bareName() {
    return !testing && options.stream().noneMatch(Option::required);
  }

  /**
   * A step as documents write it: its name; its name with the one option that may stand by itself;
   * or its name with a group of options.
   */
  Object written(SequencedMap<String, Object> given) {
    if (given.isEmpty()) {
      return name;
    }
    boolean alone =
        bare && given.size() == 1 && given.firstEntry().getKey().equals(options.getFirst().name());
    return Map.of(name, alone ? given.firstEntry().getValue() : given);
  }

  static Builder of(String name, Family family, String summary) {
    return new Builder(name, family, summary);
  }

  /** Puts a kind together, beside the step it describes. */
  static final class Builder {
    private final String name;
    private final Family family;
    private final String summary;
    private final List<Option> options = new ArrayList<>();
    private final List<Example> examples = new ArrayList<>();
    private boolean bare;
    private boolean testing;

    private Builder(String name, Family family, String summary) {
      this.name = name;
      this.family = family;
      this.summary = summary;
    }

    /** The first option, which may stand under the step's name by itself. */
    Builder bare(Option option) {
      bare = true;
      return with(option);
    }

    Builder with(Option option) {
      options.add(option);
      return this;
    }

    /** The keys of an operator stand among the options. */
    Builder testing() {
      testing = true;
      return this;
    }

    Builder example(String written, Value in, String gives) {
      examples.add(new Example(written, in, gives));
      return this;
    }

    Builder example(String written, String in, String gives) {
      return example(written, Text.of(in), gives);
    }

    StepKind reads(Function<StepOptions, Step> read) {
      return new StepKind(name, family, summary, bare, testing, options, examples, read);
    }
  }
}
