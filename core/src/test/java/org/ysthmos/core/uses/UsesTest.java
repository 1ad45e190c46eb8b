package org.ysthmos.core.uses;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.testkit.AnyBridge;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.Shores;
import org.ysthmos.core.uses.Use.How;

/**
 * What hangs on what, against brute force: a bridge hangs on a thing exactly if it cannot be used
 * once that thing is gone.
 */
class UsesTest {

  private static final int SEEDS = 300;

  /** All there is without one thing. */
  private record Without(Catalog all, Thing gone) implements Catalog {
    @Override
    public Optional<CollectionShape> collection(String system, String collection) {
      if (gone.equals(Thing.collection(system, collection))) {
        return Optional.empty();
      }
      return all.collection(system, collection)
          .map(
              shape ->
                  gone.kind() == Thing.Kind.FIELD
                          && gone.system().equals(system)
                          && gone.collection().equals(collection)
                      ? shape
                          .withFields(without(shape.fields()))
                          .withEventFields(without(shape.eventFields()))
                      : shape);
    }

    private List<FieldShape> without(List<FieldShape> fields) {
      return fields.stream()
          .filter(field -> !field.key().equals(gone.id()))
          .map(
              field ->
                  field.withFields(
                      field.fields().stream()
                          .filter(one -> !Thing.keyInList(field.key(), one.key()).equals(gone.id()))
                          .toList()))
          .toList();
    }

    @Override
    public Optional<TableDefinition> table(String id) {
      return gone.equals(Thing.table(id)) ? Optional.empty() : all.table(id);
    }

    @Override
    public Optional<WorkingCalendar> calendar(String id) {
      return gone.equals(Thing.calendar(id)) ? Optional.empty() : all.calendar(id);
    }

    @Override
    public Set<String> tables() {
      return all.tables();
    }

    @Override
    public Set<String> calendars() {
      return all.calendars();
    }
  }

  /** Everything that can be named. */
  private static List<Thing> things(Catalog all, Set<String> places) {
    Set<Thing> things = new LinkedHashSet<>();
    for (String place : places) {
      String[] at = place.split("/", -1);
      things.add(Thing.collection(at[0], at[1]));
      CollectionShape shape = all.collection(at[0], at[1]).orElseThrow();
      Stream.concat(shape.fields().stream(), shape.eventFields().stream())
          .flatMap(
              field ->
                  Stream.concat(
                      Stream.of(field.key()),
                      field.fields().stream().map(one -> Thing.keyInList(field.key(), one.key()))))
          .forEach(key -> things.add(Thing.field(at[0], at[1], key)));
    }
    all.tables().forEach(id -> things.add(Thing.table(id)));
    all.calendars().forEach(id -> things.add(Thing.calendar(id)));
    return List.copyOf(things);
  }

  private static boolean canBeUsed(String document, Catalog catalog) {
    try {
      return BridgeCompiler.compile(document, 1, catalog).number() == 1;
    } catch (DocumentException e) {
      return false;
    }
  }

  private static void assertHangsOnWhatItNeeds(String document) {
    assertHangsOnWhatItNeeds(document, Garden.CATALOG, Garden.PLACES);
  }

  private static void assertHangsOnWhatItNeeds(String document, Catalog all, Set<String> places) {
    Set<Thing> named =
        BridgeCompiler.compile(document, 1, all).uses().stream()
            .map(Use::thing)
            .collect(Collectors.toSet());
    for (Thing thing : things(all, places)) {
      assertThat(named.contains(thing))
          .as("%s in%n%s", thing, document)
          .isEqualTo(!canBeUsed(document, new Without(all, thing)));
    }
  }

  @TestFactory
  Stream<DynamicTest> bridgesOfTheGarden() {
    return Garden.BRIDGES.stream()
        .map(
            bridge ->
                DynamicTest.dynamicTest(
                    bridge, () -> assertHangsOnWhatItNeeds(Garden.document(bridge))));
  }

  @Test
  void bridgesThatGoBothWays() {
    Set<String> places = Set.of("board/tasks", "ledger/jobs");
    assertHangsOnWhatItNeeds(Shores.BRIDGE, Shores.CATALOG, places);
    Set<Use> uses = Set.copyOf(BridgeCompiler.compile(Shores.BRIDGE, 1, Shores.CATALOG).uses());
    // A note goes from left to right alone, a title goes both ways.
    assertThat(uses)
        .contains(
            new Use(Thing.field("board", "tasks", "note"), How.READS, "fields/note"),
            new Use(Thing.field("ledger", "jobs", "note"), How.WRITES, "fields/note"),
            new Use(Thing.field("board", "tasks", "title"), How.WRITES, "fields/title"),
            new Use(Thing.field("board", "tasks", "title"), How.READS, "fields/title"))
        .doesNotContain(new Use(Thing.field("board", "tasks", "note"), How.WRITES, "fields/note"));
  }

  @Test
  void bridgesOfSeeds() {
    Map<How, Integer> found = new HashMap<>();
    for (long seed = 1; seed <= SEEDS; seed++) {
      String document = AnyBridge.document(seed);
      assertHangsOnWhatItNeeds(document);
      BridgeCompiler.compile(document, 1, Garden.CATALOG)
          .uses()
          .forEach(use -> found.merge(use.how(), 1, Integer::sum));
    }
    assertThat(found.keySet()).containsExactlyInAnyOrder(How.values());
  }

  @Test
  void eachUseSaysWhereItIs() {
    Set<String> places =
        BridgeCompiler.compile(Garden.document("school-mail-to-lanes"), 1, Garden.CATALOG)
            .uses()
            .stream()
            .filter(use -> use.thing().equals(Thing.field("post-room", "mails", "/folder")))
            .map(use -> use.how() + " " + use.place())
            .collect(Collectors.toCollection(TreeSet::new));
    assertThat(places).containsExactly("READS fields/lane", "READS values/days");
  }
}
