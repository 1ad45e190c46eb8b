package org.ysthmos.core.bridge;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.uses.Thing;
import org.ysthmos.core.uses.Use;
import org.ysthmos.core.uses.Use.How;

/**
 * Takes down what the rules of a bridge name while they are compiled, so that nothing that a rule
 * can name is forgotten where it is asked what hangs on it.
 */
final class UseRecorder {

  private final Catalog catalog;
  private final Set<Use> uses = new LinkedHashSet<>();
  private String place = "";
  private int lastLookup = -1;

  UseRecorder(Catalog catalog) {
    this.catalog = catalog;
  }

  /** Compiles what stands at a path of the document. */
  <T> T at(String path, Supplier<T> compile) {
    String before = place;
    place = path;
    try {
      return compile.get();
    } finally {
      place = before;
    }
  }

  /** What was compiled, and the last lookup that must be answered before it can be computed. */
  record Needing<T>(T compiled, int lastLookup) {}

  /** Compiles something and says which lookups it needs, those of its steps included. */
  <T> Needing<T> needing(Supplier<T> compile) {
    int before = lastLookup;
    lastLookup = -1;
    try {
      T compiled = compile.get();
      return new Needing<>(compiled, lastLookup);
    } finally {
      lastLookup = Math.max(before, lastLookup);
    }
  }

  /** A rule names a value that stands ready once a lookup is answered. */
  BoundField bound(BoundField field) {
    lastLookup = Math.max(lastLookup, field.lookup());
    return field;
  }

  void collection(DocumentNode at, String system, String collection, How how) {
    if (catalog.collection(system, collection).isPresent()) {
      uses.add(new Use(Thing.collection(system, collection), how, at.path()));
    }
  }

  /** A field of a collection that is known; what only a bridge itself says of a record is none. */
  void field(CollectionShape of, String key, How how) {
    fieldAt(place, of, key, how);
  }

  /** The same at a path of the document. */
  void fieldAt(String path, CollectionShape of, String key, How how) {
    catalog
        .collection(of.system(), of.collection())
        .flatMap(shape -> keyIn(shape, key))
        .map(known -> Thing.field(of.system(), of.collection(), known))
        .ifPresent(field -> uses.add(new Use(field, how, path)));
  }

  /** A field in the records of a list. */
  void fieldInList(CollectionShape of, FieldShape list, String key) {
    catalog
        .collection(of.system(), of.collection())
        .flatMap(shape -> keyIn(shape, list.key()))
        .map(known -> Thing.keyInList(known, key))
        .ifPresent(known -> add(Thing.field(of.system(), of.collection(), known), How.READS));
  }

  /** The key as the collection has it; a record that is read whole has addresses for them all. */
  private static Optional<String> keyIn(CollectionShape shape, String key) {
    if (shape.field(key).or(() -> shape.eventField(key)).isPresent()) {
      return Optional.of(key);
    }
    return shape.fields().stream()
        .map(FieldShape::key)
        .filter(plain -> key.equals(TwoWayCompiler.addressOf(plain)))
        .findFirst();
  }

  void table(String id) {
    add(Thing.table(id), How.LOOKS_UP);
  }

  void tableAt(DocumentNode at, String id) {
    uses.add(new Use(Thing.table(id), How.LOOKS_UP, at.path()));
  }

  void calendar(String id) {
    add(Thing.calendar(id), How.READS);
  }

  void bridge(DocumentNode at, String id) {
    uses.add(new Use(Thing.bridge(id), How.LOOKS_UP, at.path()));
  }

  private void add(Thing thing, How how) {
    uses.add(new Use(thing, how, place));
  }

  /** In the order in which they were found, each once for each place. */
  List<Use> uses() {
    return List.copyOf(uses);
  }
}
