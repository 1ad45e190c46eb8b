package org.ysthmos.core.shape;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.ZoneId;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import org.ysthmos.core.json.TypedReader;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.TextLength;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * One field of a record.
 *
 * @param key the field's address in a source record (a JSON Pointer), or its key in a target
 * @param name what people call it
 * @param required whether a record cannot be made without it
 * @param longest the most that the system keeps of a text
 * @param countedIn how the system counts the length of a text
 * @param names what people call the keys of choices or people, as far as they are known
 * @param shownIn the zone in which the system's people see a moment, where it is known
 * @param schemes schemes that a link may have here beside the usual ones, in small letters
 * @param directory the id of the directory in which its system keeps the names; empty where it
 *     keeps none
 * @param fields the fields of each record, where the field is a list of records
 */
public record FieldShape(
    String key,
    String name,
    ValueType type,
    boolean required,
    OptionalInt longest,
    TextLength countedIn,
    Map<String, String> names,
    Optional<ZoneId> shownIn,
    Set<String> schemes,
    String directory,
    List<FieldShape> fields) {

  public FieldShape {
    // In their own order, which is how people know them.
    names = Collections.unmodifiableMap(new LinkedHashMap<>(names));
    schemes = Set.copyOf(schemes);
    fields = List.copyOf(fields);
  }

  public static FieldShape of(String key, String name, ValueType type) {
    return new FieldShape(
        key,
        name,
        type,
        false,
        OptionalInt.empty(),
        TextLength.CODE_UNITS,
        Map.of(),
        Optional.empty(),
        Set.of(),
        "",
        List.of());
  }

  /** Reads what stands in a record as the field declares it. */
  public Computed read(JsonNode node) {
    return TypedReader.read(node, type, schemes);
  }

  public FieldShape withKey(String other) {
    return new FieldShape(
        other, name, type, required, longest, countedIn, names, shownIn, schemes, directory,
        fields);
  }

  public FieldShape withRequired(boolean needed) {
    return new FieldShape(
        key, name, type, needed, longest, countedIn, names, shownIn, schemes, directory, fields);
  }

  public FieldShape withLongest(OptionalInt most, TextLength unit) {
    return new FieldShape(
        key, name, type, required, most, unit, names, shownIn, schemes, directory, fields);
  }

  public FieldShape withNames(Map<String, String> known) {
    return new FieldShape(
        key, name, type, required, longest, countedIn, known, shownIn, schemes, directory, fields);
  }

  public FieldShape withShownIn(Optional<ZoneId> zone) {
    return new FieldShape(
        key, name, type, required, longest, countedIn, names, zone, schemes, directory, fields);
  }

  public FieldShape withSchemes(Set<String> more) {
    return new FieldShape(
        key, name, type, required, longest, countedIn, names, shownIn, more, directory, fields);
  }

  public FieldShape withDirectory(String id) {
    return new FieldShape(
        key, name, type, required, longest, countedIn, names, shownIn, schemes, id, fields);
  }

  public FieldShape withFields(List<FieldShape> inner) {
    return new FieldShape(
        key, name, type, required, longest, countedIn, names, shownIn, schemes, directory, inner);
  }

  /** A value as people call it: choices and persons by their names, as far as they are known. */
  public String shown(Value value) {
    return value instanceof ListValue list
        ? list.items().stream().map(this::shown).collect(Collectors.joining(", "))
        : nameOf(value.display());
  }

  /** What people call a key, or the key itself where that is not known. */
  public String nameOf(String of) {
    return names.getOrDefault(of, of);
  }
}
