package org.ysthmos.adapters.openapi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.entry;
import static org.assertj.core.api.Assertions.tuple;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.http.HttpCollection;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.adapters.system.SignIn;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.value.ValueType;

class SystemDraftTest {

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private static SystemDraft draft(String json) throws Exception {
    return SystemDraft.of(
        JSON.readTree(json), Optional.of(URI.create("https://a.example/openapi.json")));
  }

  private static SystemDraft ofStandIn(String name) throws Exception {
    Path file = Path.of("..", "standins", "src", "main", "resources", "openapi", name + ".json");
    return draft(Files.readString(file));
  }

  private static HttpCollection collection(SystemDraft draft, String id) {
    SystemDescription system = SystemReader.read(draft.document());
    assertThat(system.collections()).containsKey(id);
    return (HttpCollection) system.collections().get(id);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "visitor-desk",
        "grounds-board",
        "friends-register",
        "works-ledger",
        "climate-desk",
        "garden-chat",
        "chore-table"
      })
  void draftOfEveryDescriptionCanBeUsed(String name) throws Exception {
    SystemDraft draft = ofStandIn(name);
    SystemDescription system = SystemReader.read(draft.document());
    assertThat(system.id()).isEqualTo(name);
    assertThat(system.address()).hasToString("https://a.example");
    assertThat(system.signIn()).contains(new SignIn.Bearer(name + "-token"));
    assertThat(system.collections()).isNotEmpty();
  }

  @Test
  void draftOfALedgerFindsKeysTagsAndTheCursorOfWhatChanged() throws Exception {
    HttpCollection jobs = collection(ofStandIn("works-ledger"), "jobs");
    assertThat(jobs.create().getFirst().keyHeader()).contains("Idempotency-Key");
    assertThat(jobs.create().getFirst().fields())
        .extracting(HttpCollection.Placed::field)
        .contains("title", "due", "owner", "labels");
    assertThat(jobs.change().getFirst().ifMatch()).isTrue();
    assertThat(jobs.remove()).isPresent();
    assertThat(jobs.findsBy()).containsExactly(List.of("id"));
    HttpCollection.Poll poll = jobs.poll().orElseThrow();
    assertThat(poll.call().path()).isEqualTo("/api/changes");
    assertThat(poll.version()).hasToString("/ordinal");
    assertThat(poll.since().orElseThrow().cursor().orElseThrow()).hasToString("/cursor");
    assertThat(poll.paging().toString()).contains("/more", "after");
    assertThat(jobs.shape().written().field("due").orElseThrow().type()).isEqualTo(ValueType.DAY);
    assertThat(jobs.shape().written().field("status").orElseThrow().nameOf("in-work"))
        .isEqualTo("In work");
    assertThat(jobs.shape().written().field("title").orElseThrow().longest()).hasValue(90);
  }

  @Test
  void draftOfARegisterFindsItsLinksAndMoments() throws Exception {
    HttpCollection pledges = collection(ofStandIn("friends-register"), "pledges");
    HttpCollection.Poll poll = pledges.poll().orElseThrow();
    assertThat(poll.paging()).isEqualTo(new HttpCollection.Paging.ByLink("next"));
    assertThat(poll.since().orElseThrow().parameter()).isEqualTo("changedSince");
    assertThat(poll.changed().orElseThrow()).hasToString("/changedAt");
    assertThat(poll.created().orElseThrow()).hasToString("/createdAt");
  }

  @Test
  void keyThatAFieldKeepsIsLookedForWithItsParameter() throws Exception {
    HttpCollection messages = collection(ofStandIn("garden-chat"), "messages");
    assertThat(messages.create().getFirst().keyField()).contains("key");
    assertThat(messages.findByKey().orElseThrow().call().path())
        .isEqualTo("/api/messages?key={key}");
  }

  @Test
  void pathsWithSlotsOfTheirOwnAreRemarked() throws Exception {
    SystemDraft draft = ofStandIn("chore-table");
    assertThat(collection(draft, "rows").poll().orElseThrow().paging())
        .isEqualTo(new HttpCollection.Paging.ByNumber("page"));
    assertThat(draft.remarks())
        .anySatisfy(remark -> assertThat(remark.text()).contains("in place of {sheet}"));
  }

  /** The example petstore of the OpenAPI Initiative, shortened; from memory. */
  @Test
  void petstoreOfTheStandardIsRead() throws Exception {
    SystemDraft draft =
        draft(
            """
            {"openapi":"3.0.0","info":{"version":"1.0.0","title":"Petstore"},
             "servers":[{"url":"http://petstore.example/v1"}],
             "paths":{
              "/pets":{
               "get":{"operationId":"listPets","parameters":[{"name":"limit","in":"query","schema":{"type":"integer"}}],
                "responses":{"200":{"description":"A paged array of pets","content":{"application/json":{"schema":{"$ref":"#/components/schemas/Pets"}}}},
                 "default":{"description":"unexpected error","content":{"application/json":{"schema":{"$ref":"#/components/schemas/Error"}}}}}},
               "post":{"operationId":"createPets","responses":{"201":{"description":"Null response"}},
                "requestBody":{"content":{"application/json":{"schema":{"$ref":"#/components/schemas/Pet"}}},"required":true}}},
              "/pets/{petId}":{"get":{"operationId":"showPetById","parameters":[{"name":"petId","in":"path","required":true,"schema":{"type":"string"}}],
                "responses":{"200":{"description":"a pet","content":{"application/json":{"schema":{"$ref":"#/components/schemas/Pet"}}}}}}}},
             "components":{"schemas":{
              "Pet":{"type":"object","required":["id","name"],"properties":{"id":{"type":"integer","format":"int64"},"name":{"type":"string"},"tag":{"type":"string"}}},
              "Pets":{"type":"array","maxItems":100,"items":{"$ref":"#/components/schemas/Pet"}}}}}
            """);
    SystemDescription system = SystemReader.read(draft.document());
    assertThat(system.address()).hasToString("http://petstore.example/v1");
    HttpCollection pets = collection(draft, "pets");
    assertThat(pets.shape().recordWord()).isEqualTo("pet");
    assertThat(pets.lists().orElseThrow()).hasToString("/id");
    assertThat(pets.create().getFirst().fields())
        .extracting(HttpCollection.Placed::field)
        .containsExactly("id", "name", "tag");
    assertThat(pets.poll()).isEmpty();
    assertThat(draft.remarks())
        .extracting(SystemDraft.Remark::text)
        .anySatisfy(text -> assertThat(text).contains("names no sign-in"))
        .anySatisfy(text -> assertThat(text).contains("may be made twice"))
        .anySatisfy(text -> assertThat(text).contains("tells what changed"));
  }

  /** OpenAPI 3.1 writes types as JSON Schema 2020-12 does; bodies may be wrapped. */
  @Test
  void wrappedBodiesAndNullableTypesAreRead() throws Exception {
    SystemDraft draft =
        draft(
            """
            {"openapi":"3.1.0","info":{"title":"Orders","version":"2"},
             "paths":{"/orders":{"post":{"requestBody":{"content":{"application/json":{"schema":
               {"type":"object","properties":{"order":{"type":"object","properties":
                 {"title":{"type":["string","null"]},"when":{"type":["string","null"],"format":"date"},"lines":{"type":"array","items":{"type":"object","properties":{"n":{"type":"number"}}}}}}}}}}},
               "responses":{"201":{"description":"made","content":{"application/json":{"schema":
                {"type":"object","properties":{"order":{"type":"object","properties":{"id":{"type":"string"}}}}}}}}}}},
              "/orders/{id}":{"get":{"responses":{"200":{"description":"one","content":{"application/json":{"schema":
                {"type":"object","properties":{"id":{"type":"string"},"title":{"type":"string"}}}}}}}}}},
             "components":{"securitySchemes":{"k":{"type":"apiKey","in":"header","name":"X-Key"}}}}
            """);
    SystemDescription system = SystemReader.read(draft.document());
    assertThat(system.signIn()).contains(new SignIn.Key("X-Key", "orders-key"));
    HttpCollection orders = collection(draft, "orders");
    assertThat(orders.create().getFirst().at()).hasToString("/order");
    assertThat(orders.createdId()).hasToString("/order/id");
    assertThat(orders.shape().written().field("when").orElseThrow().type())
        .isEqualTo(ValueType.DAY);
    assertThat(draft.remarks())
        .anySatisfy(remark -> assertThat(remark.text()).contains("Left out").contains("/lines"));
  }

  @Test
  void fieldsWithinObjectsAreWrittenAtTheirPlaces() throws Exception {
    SystemDraft draft =
        draft(
            """
            {"openapi":"3.0.3","info":{"title":"Parcels","version":"1"},"servers":[{"url":"https://parcels.example"}],
             "paths":{"/parcels":{"post":{"requestBody":{"content":{"application/json":{"schema":{"$ref":"#/components/schemas/Parcel"}}}},
               "responses":{"201":{"description":"made","content":{"application/json":{"schema":{"$ref":"#/components/schemas/Parcel"}}}}}}},
              "/parcels/{id}":{"get":{"responses":{"200":{"description":"one","content":{"application/json":{"schema":{"$ref":"#/components/schemas/Parcel"}}}}}},
               "patch":{"requestBody":{"content":{"application/json":{"schema":{"type":"object","properties":
                 {"owner":{"type":"object","properties":{"id":{"type":"string"}}}}}}}},"responses":{"204":{"description":"done"}}}}},
             "components":{"schemas":{"Parcel":{"type":"object","properties":{"id":{"type":"string"},"title":{"type":"string"},
               "owner":{"type":"object","properties":{"id":{"type":"string"},"since":{"type":"string","format":"date"}}}}}}}}
            """);
    HttpCollection parcels = collection(draft, "parcels");
    assertThat(parcels.create().getFirst().fields())
        .extracting(HttpCollection.Placed::field, placed -> placed.at().toString())
        .contains(
            tuple("title", "/title"),
            tuple("owner-id", "/owner/id"),
            tuple("owner-since", "/owner/since"));
    assertThat(parcels.change().getFirst().fields())
        .extracting(HttpCollection.Placed::field)
        .containsExactly("owner-id");
    assertThat(parcels.shape().written().field("owner-since").orElseThrow().type())
        .isEqualTo(ValueType.DAY);
  }

  @Test
  void webhooksBecomePushByWhatTheyCarryAndHowTheyAreSigned() throws Exception {
    Push ofDesk = push("visitor-desk", "submissions");
    assertThat(ofDesk.verify()).isEqualTo(new Push.Verify.StandardWebhooks("visitor-desk-hook"));
    assertThat(ofDesk.record()).hasToString("/submission");
    assertThat(ofDesk.kinds())
        .containsOnly(
            entry("submission.created", "created"), entry("submission.changed", "changed"));
    Push ofClimate = push("climate-desk", "tickets");
    assertThat(ofClimate.verify())
        .isEqualTo(
            new Push.Verify.Signature(
                "Climate-Signature", "climate-desk-hook", "sha256=", true, "sha256"));
    assertThat(ofClimate.event()).isEqualTo(new Push.IdAt.Header("Climate-Delivery"));
    assertThat(ofClimate.record()).hasToString("/ticket/id");
    assertThat(ofClimate.kinds()).containsEntry("ticket-made", "created");
    Push ofChat = push("garden-chat", "messages");
    assertThat(ofChat.verify())
        .isEqualTo(new Push.Verify.SharedSecret("Chat-Secret", "garden-chat-hook"));
    assertThat(ofChat.record()).hasToString("/id");
  }

  private static Push push(String standIn, String collection) throws Exception {
    SystemDraft draft = ofStandIn(standIn);
    assertThat(draft.remarks())
        .anySatisfy(
            remark -> assertThat(remark.text()).contains("/hooks/" + standIn + "/" + collection));
    return collection(draft, collection).push().orElseThrow();
  }

  @Test
  void webhooksOfOneShapeAreJoinedAndOneWithoutAHeaderGetsASecretInItsAddress() throws Exception {
    String hook =
        "{\"post\":{\"requestBody\":{\"content\":{\"application/json\":{\"schema\":{\"type\":\"object\",\"properties\":"
            + "{\"event\":{\"const\":\"%s\"},\"jobId\":{\"type\":\"integer\"}}}}}}}}";
    SystemDraft draft =
        draft(
            """
            {"openapi":"3.1.0","info":{"title":"Jobs","version":"1"},
             "paths":{"/jobs":{"get":{"responses":{"200":{"description":"all","content":{"application/json":{"schema":
               {"type":"array","items":{"type":"object","properties":{"id":{"type":"integer"},"title":{"type":"string"}}}}}}}}}}},
             "webhooks":{"made":%s,"gone":%s,"moved":%s}}
            """
                .formatted(
                    hook.formatted("job_created"),
                    hook.formatted("job_deleted"),
                    hook.formatted("job_moved")));
    Push push = collection(draft, "jobs").push().orElseThrow();
    assertThat(push.verify()).isEqualTo(new Push.Verify.PathToken("jobs-hook"));
    assertThat(push.kinds())
        .containsOnly(
            entry("job_created", "created"),
            entry("job_deleted", "removed"),
            entry("job_moved", "moved"));
    assertThat(draft.remarks())
        .anySatisfy(remark -> assertThat(remark.text()).contains("last part of the address"));
  }

  /** Following one would have us call whatever somebody wrote down. */
  @Test
  void referencesThatLeadElsewhereAreNotFollowedAndCirclesEnd() throws Exception {
    assertThatThrownBy(
            () ->
                draft(
                    "{\"openapi\":\"3.0.0\",\"paths\":{\"/a\":{\"$ref\":\"http://169.254.169.254/x\"}}}"))
        .isInstanceOf(SystemDraft.Unusable.class);
    JsonNode circle =
        JSON.readTree(
            "{\"openapi\":\"3.0.0\",\"a\":{\"$ref\":\"#/b\"},\"b\":{\"$ref\":\"#/a\"},\"c\":{\"allOf\":[{\"$ref\":\"#/c\"}]}}");
    OpenApiTree tree = new OpenApiTree(circle);
    assertThat(tree.follow(circle.path("a")).isMissingNode()).isTrue();
    assertThat(tree.schema(circle.path("c"))).isEmpty();
  }

  @ParameterizedTest
  @ValueSource(strings = {"{}", "{\"swagger\":\"1.2\"}", "{\"openapi\":\"4.0.0\"}", "[]"})
  void whatIsNoDescriptionIsRefusedInWords(String json) {
    assertThatThrownBy(() -> draft(json)).isInstanceOf(SystemDraft.Unusable.class);
  }

  private static String described(String schemes, String servers, String path) {
    return """
        {"openapi":"3.0.3","info":{"title":"Orders"},%s
         "paths":{"%s":{"get":{"responses":{"200":{"description":"all","content":{"application/json":{"schema":
           {"type":"array","items":{"type":"object","properties":{"id":{"type":"string"},"name":{"type":"string"}}}}}}},
           "429":{"description":"wait"}}}}},
         "components":{"securitySchemes":{%s}}}
        """
        .formatted(servers, path, schemes);
  }

  /** Security schemes as OpenAPI 3.0.3 section 4.7.27 has them. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "\"a\":{\"type\":\"http\",\"scheme\":\"Basic\"} | Name the user | user",
        "\"a\":{\"type\":\"oauth2\",\"flows\":{}} | Ask for a token that lasts | bearer",
        "\"a\":{\"type\":\"apiKey\",\"in\":\"query\",\"name\":\"k\"} | None of its sign-ins | timeout",
        "\"a\":{\"type\":\"mutualTLS\"} | None of its sign-ins | timeout",
      })
  void signInIsTakenOrRemarked(String schemes, String remark, String written) throws Exception {
    SystemDraft draft = draft(described(schemes, "", "/orders"));
    assertThat(draft.document()).contains(written);
    assertThat(draft.remarks())
        .anySatisfy(one -> assertThat(one.text()).contains(remark))
        .anySatisfy(one -> assertThat(one.text()).contains("rate-limit"));
    assertThat(SystemReader.read(draft.document()).collections()).containsKey("orders");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "\"servers\":[{\"url\":\"https://b.example/v2/\"}], | https://b.example/v2",
        "\"servers\":[{\"url\":\"/v2\"}], | https://a.example/v2",
        "\"servers\":[{\"url\":\"https://{tenant}.example\"}], | https://system.example",
        "'' | https://a.example",
      })
  void addressIsWhereTheDescriptionSays(String servers, String address) throws Exception {
    SystemDraft draft = draft(described("", servers, "/orders"));
    assertThat(SystemReader.read(draft.document()).address()).hasToString(address);
  }

  /** A list that stands bare in the answer has no address of its own. */
  @Test
  void bareListIsReadAndItsWordsAreSingularAndPlain() throws Exception {
    HttpCollection categories =
        collection(draft(described("", "", "/v1/plantCategories")), "plant-categories");
    assertThat(categories.list().orElseThrow().items()).hasToString("");
    assertThat(categories.shape().recordWord()).isEqualTo("plant category");
  }
}
