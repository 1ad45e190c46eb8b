package org.ysthmos.core.impact;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentJson;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.testkit.AnyBridge;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.ManyLists;
import org.ysthmos.core.testkit.Shores;
import org.ysthmos.core.uses.Thing;
import org.ysthmos.core.uses.Use;

/** A field that has another key from now on, in every place where a document can name it. */
class RenamingTest {

  private static final int SEEDS = 60;

  /** All there is, where one field is called otherwise. */
  private static Catalog renamed(Catalog all, Thing field, String to) {
    Shapes shapes =
        (system, collection) ->
            all.collection(system, collection)
                .map(
                    shape ->
                        system.equals(field.system()) && collection.equals(field.collection())
                            ? renamed(shape, field.id(), to)
                            : shape);
    return all.with(shapes);
  }

  private static CollectionShape renamed(CollectionShape shape, String from, String to) {
    return shape
        .withFields(renamed(shape.fields(), "", from, to))
        .withEventFields(renamed(shape.eventFields(), "", from, to));
  }

  private static List<FieldShape> renamed(
      List<FieldShape> fields, String before, String from, String to) {
    return fields.stream()
        .map(
            field ->
                (before + field.key()).equals(from)
                    ? field.withKey(to)
                    : field.withFields(
                        renamed(field.fields(), before + field.key() + "/*", from, to)))
        .toList();
  }

  private static String newKey(Thing field) {
    return field.id().startsWith("/") ? "/called/otherwise" : "called-otherwise";
  }

  private static Thing called(Thing field, String to) {
    int list = field.id().indexOf("/*");
    String before = list < 0 ? "" : field.id().substring(0, list + 2);
    return Thing.field(field.system(), field.collection(), before + to);
  }

  /** The field itself, and what stands in its records where it is a list of them. */
  private static Thing follows(Thing one, Thing field, Thing as) {
    if (one.equals(field)) {
      return as;
    }
    boolean within =
        one.system().equals(field.system())
            && one.collection().equals(field.collection())
            && one.id().startsWith(field.id() + "/*");
    return within
        ? Thing.field(
            one.system(), one.collection(), as.id() + one.id().substring(field.id().length()))
        : one;
  }

  private static Set<Thing> named(JsonNode document, Catalog all) {
    return BridgeCompiler.compile(document.toString(), 1, all).uses().stream()
        .map(Use::thing)
        .collect(Collectors.toSet());
  }

  /** It names what it named, the one by its new name; and renamed back it is as it was. */
  private static void assertFollows(String yaml, Catalog all) {
    JsonNode document = DocumentJson.of(DocumentNode.parse(yaml));
    Set<Thing> before = named(document, all);
    for (Thing field : before) {
      if (field.kind() != Thing.Kind.FIELD) {
        continue;
      }
      String to = newKey(field);
      JsonNode after = Renaming.rewritten(document, field, to, all);
      Catalog then = renamed(all, field, to);
      Thing as = called(field, to);
      assertThat(named(after, then))
          .as("%s in %s", field, document)
          .isEqualTo(
              before.stream().map(one -> follows(one, field, as)).collect(Collectors.toSet()));
      String from =
          field.id().substring(field.id().indexOf("/*") < 0 ? 0 : field.id().indexOf("/*") + 2);
      assertThat(Renaming.rewritten(after, as, from, then))
          .as("%s back", field)
          .isEqualTo(document);
    }
  }

  @Test
  void bridgesOfTheGardenFollow() {
    Garden.BRIDGES.forEach(bridge -> assertFollows(Garden.document(bridge), Garden.CATALOG));
  }

  @Test
  void bridgesThatGoBothWaysFollow() {
    assertFollows(Shores.BRIDGE, Shores.CATALOG);
  }

  @Test
  void bridgesOfSeedsFollow() {
    LongStream.rangeClosed(1, SEEDS)
        .mapToObj(AnyBridge::document)
        .forEach(document -> assertFollows(document, Garden.CATALOG));
  }

  @Test
  void whatOnlyLooksLikeTheFieldStaysAsItIs() {
    String document =
        Garden.document("ticket-to-job")
            .replace(
                "owner: /requester",
                "owner: /requester\n  link: { always: \"/subject\", steps: [as: link] }")
            .replace("Place: {/subject}", "Place: {{/subject}} {/subject}");
    JsonNode after =
        Renaming.rewritten(
            DocumentJson.of(DocumentNode.parse(document)),
            Thing.field("climate-desk", "tickets", "/subject"),
            "/topic",
            Garden.CATALOG);
    assertThat(after.at("/fields/title/text").asText()).isEqualTo("{values/fault}: {/topic}");
    assertThat(after.at("/fields/link/always").asText()).isEqualTo("/subject");
    assertThat(after.at("/fields/description/texts/0").asText())
        .isEqualTo("Place: {{/subject}} {/topic}");
  }

  @Test
  void whatIsDescribedOnceIsCalledOtherwiseAtEachOfItsPlaces() {
    JsonNode document =
        DocumentJson.of(
            DocumentNode.parse(
                """
                bridge: beds
                name: Beds
                purpose: Each list of the beds has a list of jobs
                from: { system: beds, places: { of: lists, table: lists }, event: created }
                to: { system: jobs, collection: { of: lists, take: goes-to } }
                match: [place/id, /id]
                fields: { title: { text: "{/title} of {place/crew}" } }
                """));
    Catalog lists = ManyLists.catalog(ManyLists.table(5));
    JsonNode after =
        Renaming.rewritten(
            document, Thing.field("beds", "lists:bed-3", "/title"), "/heading", lists);
    assertThat(after.at("/fields/title/text").asText()).isEqualTo("{/heading} of {place/crew}");
  }

  @Test
  void aFieldThatIsThereAlreadyIsNamedInItsPlace() {
    JsonNode document =
        DocumentJson.of(
            DocumentNode.parse(
                Garden.document("ticket-to-job")
                    .replace("Place: {/subject}", "{/subject} {/subject} {/description}")));
    Thing subject = Thing.field("climate-desk", "tickets", "/subject");
    JsonNode after = Renaming.rewritten(document, subject, "/description", Garden.CATALOG);
    assertThat(after.at("/fields/description/texts/0").asText())
        .isEqualTo("{/description} {/description} {/description}");
    // What is no text cannot be split as the text was.
    Thing text = Thing.field("climate-desk", "tickets", "/description");
    assertThatThrownBy(() -> Renaming.rewritten(document, text, "/number", Garden.CATALOG))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining("takes a text but gets a number");
  }

  @ParameterizedTest
  @CsvSource({
    "/subject, /topic, true",
    "/subject, topic, false",
    "/subject, /subject, false",
    "/subject, /a b, false",
    "/subject, /{x}, false",
    "/rooms/*/name, /called, true",
    "title, called, true",
    "title, /called, false",
  })
  void aKeyTakesThePlaceOfOneOfItsForm(String from, String to, boolean fits) {
    assertThat(Renaming.fits(Thing.field("a", "b", from), to)).isEqualTo(fits);
  }
}
