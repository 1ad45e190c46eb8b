package org.ysthmos.core.recall;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.SequencedMap;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * What the fields of a record held before some changes of them, as far as that was noted.
 *
 * @param fields what they are to hold again, by their keys
 * @param unknown those of which it is not known what they held
 * @param since those that were written anew after what is undone, and stay
 */
public record PutBack(
    SequencedMap<String, Value> fields, List<String> unknown, List<String> since) {

  /** Nothing is known of what was written before. */
  public static final PutBack NONE = new PutBack(new LinkedHashMap<>(), List.of(), List.of());

  /**
   * A change that is undone.
   *
   * @param fields what it wrote
   * @param before what these held before, as far as they were written from here before
   */
  public record Undone(Map<String, Value> fields, Map<String, Value> before) {}

  /**
   * @param undone the changes, in the order in which they were made
   * @param held what was written to the record last, field by field
   * @param others the keys of fields that others write too, so that nobody knows their order
   */
  public static PutBack of(
      List<Undone> undone, Map<String, Value> held, Collection<String> others) {
    Set<String> changed = new LinkedHashSet<>();
    undone.forEach(one -> changed.addAll(one.fields().keySet()));
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    List<String> unknown = new ArrayList<>();
    List<String> since = new ArrayList<>();
    for (String field : changed) {
      List<Undone> of = undone.stream().filter(one -> one.fields().containsKey(field)).toList();
      Value before = before(field, of);
      Value now = held.getOrDefault(field, Nothing.NOTHING);
      if (!now.equals(of.getLast().fields().get(field))) {
        since.add(field);
      } else if (before == null || others.contains(field)) {
        unknown.add(field);
      } else {
        fields.put(field, before);
      }
    }
    return new PutBack(fields, List.copyOf(unknown), List.copyOf(since));
  }

  /**
   * What a field held before the last change; where the change before that wrote it, what it held
   * before that one, and so on. Something else may have been written between them that stays.
   */
  private static @Nullable Value before(String field, List<Undone> of) {
    Value before = of.getLast().before().get(field);
    for (Undone earlier : of.reversed().subList(1, of.size())) {
      if (!Objects.equals(earlier.fields().get(field), before)) {
        break;
      }
      before = earlier.before().get(field);
    }
    return before;
  }

  /** Whether all that was changed and not written anew since can be put back. */
  public boolean isWhole() {
    return unknown.isEmpty() && !fields.isEmpty();
  }
}
