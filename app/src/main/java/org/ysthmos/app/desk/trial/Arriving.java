package org.ysthmos.app.desk.trial;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.ysthmos.app.desk.sample.SourceColumns;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.json.StoredText;
import org.ysthmos.core.suggest.NameLikeness;
import org.ysthmos.core.suggest.SourceField;

/** What arrives, field by field, with the values of the sample in view and of the others. */
final class Arriving {

  /**
   * A source field.
   *
   * @param value what the sample in view holds; empty if nothing
   * @param items what it holds one by one, where it holds a list or a group
   * @param filled how many of the samples looked at hold something
   * @param of how many samples were looked at
   * @param others a few other values that samples hold
   * @param alike fields with a name so like this one that they are easily taken for each other
   */
  record ArrivingField(
      String address,
      String name,
      String type,
      String value,
      List<String> items,
      int filled,
      int of,
      List<String> others,
      List<AlikeField> alike) {}

  /**
   * A field that is easily taken for another.
   *
   * @param differs in how many samples the two hold something else
   */
  record AlikeField(String address, String name, String value, int differs) {}

  /** The fields of the event, or of one lookup. */
  record ArrivingGroup(String title, List<ArrivingField> fields) {}

  private static final int MOST_OTHERS = 4;
  private static final int MOST_ITEMS = 50;
  private static final int LONGEST = 200;

  /** From here on two names are easily confused. */
  private static final double ALIKE = 0.6;

  /** With more fields than this, comparing each with each takes too long while someone types. */
  private static final int MOST_COMPARED = 80;

  private final int inView;
  private final List<SourceField> all;

  private Arriving(List<SourceField> all, int inView) {
    this.inView = inView;
    this.all = all;
  }

  static List<ArrivingGroup> groups(List<SourceColumns.Group> columns, int inView) {
    List<SourceField> all = columns.stream().flatMap(g -> g.fields().stream()).toList();
    Arriving arriving = new Arriving(all, inView);
    return columns.stream()
        .map(
            group ->
                new ArrivingGroup(
                    group.title(), group.fields().stream().map(arriving::view).toList()))
        .toList();
  }

  private ArrivingField view(SourceField field) {
    String current = held(field, inView);
    int filled = 0;
    Set<String> others = new LinkedHashSet<>();
    for (int i = 0; i < field.samples().size(); i++) {
      String text = held(field, i);
      if (!text.isBlank()) {
        filled++;
        if (!text.equals(current)) {
          others.add(text);
        }
      }
    }
    return new ArrivingField(
        field.address().toString(),
        field.shape().name(),
        field.shape().type().toString(),
        Words.limited(current, LONGEST),
        items(field),
        filled,
        field.samples().size(),
        others.stream().limit(MOST_OTHERS).map(text -> Words.limited(text, LONGEST)).toList(),
        alike(field));
  }

  private static String held(SourceField field, int sample) {
    if (sample >= field.samples().size()) {
      return "";
    }
    JsonNode node = field.samples().get(sample);
    return node.isMissingNode() || node.isNull() ? "" : StoredText.of(node);
  }

  private List<String> items(SourceField field) {
    if (inView >= field.samples().size()) {
      return List.of();
    }
    JsonNode node = field.samples().get(inView);
    List<String> items = new ArrayList<>();
    if (node.isArray()) {
      node.forEach(item -> items.add(Words.limited(item(item), LONGEST)));
    } else if (node.isObject()) {
      node.properties()
          .forEach(
              entry ->
                  items.add(
                      Words.limited(entry.getKey() + ": " + item(entry.getValue()), LONGEST)));
    }
    return items.size() <= MOST_ITEMS ? items : items.subList(0, MOST_ITEMS);
  }

  private static String item(JsonNode node) {
    if (!node.isObject()) {
      return StoredText.of(node);
    }
    List<String> parts = new ArrayList<>();
    node.properties().forEach(e -> parts.add(e.getKey() + ": " + StoredText.of(e.getValue())));
    return String.join(", ", parts);
  }

  private List<AlikeField> alike(SourceField field) {
    if (all.size() > MOST_COMPARED) {
      return List.of();
    }
    return all.stream()
        .filter(other -> !other.address().equals(field.address()))
        .filter(other -> NameLikeness.of(other.shape().name(), field.shape().name()) >= ALIKE)
        .map(
            other ->
                new AlikeField(
                    other.address().toString(),
                    other.shape().name(),
                    Words.limited(held(other, inView), LONGEST),
                    differs(field, other)))
        .toList();
  }

  private static int differs(SourceField one, SourceField other) {
    int differs = 0;
    for (int i = 0; i < one.samples().size(); i++) {
      differs += held(one, i).equals(held(other, i)) ? 0 : 1;
    }
    return differs;
  }
}
