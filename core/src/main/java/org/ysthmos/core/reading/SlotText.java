package org.ysthmos.core.reading;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/** A text with slots made into a function: words, field, words, field, …, words. */
public final class SlotText {

  private final String[] before;
  private final @Nullable BoundField[] fields;
  private final String after;

  /** How long the text will be, about. */
  private final int room;

  private SlotText(List<String> before, List<@Nullable BoundField> fields, String after) {
    this.before = before.toArray(String[]::new);
    this.fields = fields.toArray(new @Nullable BoundField[0]);
    this.after = after;
    this.room = after.length() + before.stream().mapToInt(words -> words.length() + 24).sum();
  }

  /**
   * @throws Misfit if a slot holds an address where nothing stands, or what cannot stand in a text
   */
  public static SlotText compile(Template template, Scope scope) {
    List<String> before = new ArrayList<>();
    List<@Nullable BoundField> fields = new ArrayList<>();
    StringBuilder words = new StringBuilder();
    for (Template.Part part : template.parts()) {
      switch (part) {
        case Template.Words w -> words.append(w.text());
        case Template.Slot slot -> {
          before.add(words.toString());
          fields.add(inText(scope.bind(slot.address())));
          words.setLength(0);
        }
        case Template.InHand inHand -> {
          before.add(words.toString());
          fields.add(null);
          words.setLength(0);
        }
      }
    }
    return new SlotText(before, fields, words.toString());
  }

  private static BoundField inText(BoundField field) {
    ValueType type = field.shape().type();
    ValueType each = type.element().orElse(type);
    if (each.equals(ValueType.MOMENT)) {
      throw new Misfit(
          "“%s” is a moment and would read differently in each zone; name it under values with the"
                  .formatted(field.address())
              + " step write, which states the zone");
    }
    if (each.equals(ValueType.RECORD)) {
      throw new Misfit(
          "“%s” is a %s and cannot stand in a text; point to one of its fields"
              .formatted(field.address(), type));
    }
    return field;
  }

  /** The text with its slots filled, or the problem that keeps a slot empty. */
  public Computed fill(Value inHand, Reading reading) {
    return fill(inHand, reading, false);
  }

  /** The text with its slots filled; nothing if there are slots and all of them are blank. */
  public Computed fillUnlessBlank(Reading reading) {
    return fill(Nothing.NOTHING, reading, fields.length > 0);
  }

  private Computed fill(Value inHand, Reading reading, boolean unlessBlank) {
    StringBuilder text = new StringBuilder(room);
    boolean blank = unlessBlank;
    for (int i = 0; i < fields.length; i++) {
      text.append(before[i]);
      BoundField field = fields[i];
      Computed computed = field == null ? inHand : field.read(reading);
      if (computed instanceof Problem problem) {
        return problem;
      }
      String shown = Warned.valueOf(computed).display();
      blank = blank && WhiteSpace.isBlank(shown);
      text.append(shown);
      if (text.length() > Text.LONGEST) {
        return Text.tooLong();
      }
    }
    return blank ? Nothing.NOTHING : Text.checked(text.append(after).toString());
  }

  /** The source fields in the slots, each once. */
  public List<BoundField> reads() {
    return Arrays.stream(fields).filter(Objects::nonNull).distinct().toList();
  }
}
