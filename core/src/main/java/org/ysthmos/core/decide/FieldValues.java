package org.ysthmos.core.decide;

import java.util.AbstractMap;
import java.util.AbstractSet;
import java.util.Collections;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.SequencedMap;
import java.util.Set;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.value.Value;

/**
 * The values of a task's fields in the order of their rules, kept in one array: a decision makes
 * two of these for each event, and nothing but arrays is cheap enough. Fields without a place in it
 * are not there. Immutable once it is handed out.
 */
final class FieldValues extends AbstractMap<String, Value> implements SequencedMap<String, Value> {

  private final List<CompiledField> fields;
  private final @Nullable Value[] values;
  private int size;

  FieldValues(List<CompiledField> fields) {
    this.fields = fields;
    this.values = new @Nullable Value[fields.size()];
  }

  /** Sets the value of the field at a place; each place at most once. */
  void set(int place, Value value) {
    values[place] = value;
    size++;
  }

  /** The value at a place, or null if there is none. */
  @Nullable Value at(int place) {
    return values[place];
  }

  @Override
  public int size() {
    return size;
  }

  @Override
  public @Nullable Value get(@Nullable Object key) {
    for (int i = 0; i < values.length; i++) {
      if (fields.get(i).target().key().equals(key)) {
        return values[i];
      }
    }
    return null;
  }

  @Override
  public boolean containsKey(@Nullable Object key) {
    return get(key) != null;
  }

  @Override
  public void forEach(BiConsumer<? super String, ? super Value> action) {
    for (int i = 0; i < values.length; i++) {
      Value value = values[i];
      if (value != null) {
        action.accept(fields.get(i).target().key(), value);
      }
    }
  }

  @Override
  public Set<Map.Entry<String, Value>> entrySet() {
    return new AbstractSet<>() {
      @Override
      public int size() {
        return size;
      }

      @Override
      public Iterator<Map.Entry<String, Value>> iterator() {
        return new Entries();
      }
    };
  }

  /** Walks over the values that there are. */
  private final class Entries implements Iterator<Map.Entry<String, Value>> {
    private int next = from(0);

    private int from(int place) {
      int at = place;
      while (at < values.length && values[at] == null) {
        at++;
      }
      return at;
    }

    @Override
    public boolean hasNext() {
      return next < values.length;
    }

    @Override
    public Map.Entry<String, Value> next() {
      Value value = hasNext() ? values[next] : null;
      if (value == null) {
        throw new NoSuchElementException("there is no value any more");
      }
      String key = fields.get(next).target().key();
      next = from(next + 1);
      return Map.entry(key, value);
    }
  }

  @Override
  public SequencedMap<String, Value> reversed() {
    SequencedMap<String, Value> entries = new LinkedHashMap<>();
    for (int i = values.length - 1; i >= 0; i--) {
      Value value = values[i];
      if (value != null) {
        entries.put(fields.get(i).target().key(), value);
      }
    }
    return Collections.unmodifiableSequencedMap(entries);
  }
}
