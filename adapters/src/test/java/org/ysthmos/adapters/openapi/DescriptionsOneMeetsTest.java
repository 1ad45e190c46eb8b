package org.ysthmos.adapters.openapi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.http.HttpCollection;

/** Descriptions as they are published: older, larger, and with habits of their own. */
class DescriptionsOneMeetsTest {

  private static SystemDraft draft(String text) throws Exception {
    return SystemDraft.of(DescriptionText.parse(text), Optional.empty());
  }

  private static HttpCollection collection(SystemDraft draft, String id) {
    var collections = SystemReader.read(draft.document()).collections();
    assertThat(collections).containsKey(id);
    return (HttpCollection) collections.get(id);
  }

  private static String json(String schema) {
    return "{\"content\":{\"application/json\":{\"schema\":" + schema + "}}}";
  }

  private static String ok(String schema) {
    return "{\"responses\":{\"200\":" + json(schema) + "}}";
  }

  /** OpenAPI 3.0.3 section 4.7.24.1 and 3.1: what is only read is not sent, and the other way. */
  @Test
  void whatIsOnlyReadIsNotWrittenAndWhatIsOnlyWrittenIsNotRead() throws Exception {
    String account =
        """
        {"type":"object","required":["id","name"],"properties":{
          "id":{"type":"string","readOnly":true},"name":{"type":"string"},
          "secret":{"type":"string","writeOnly":true},
          "owner":{"type":"object","properties":{"mail":{"type":"string"},"since":{"type":"string","readOnly":true}}}}}
        """;
    HttpCollection accounts =
        collection(
            draft(
                """
                {"openapi":"3.0.3","info":{"title":"Accounts"},"paths":{
                  "/accounts":{"post":{"requestBody":%1$s,"responses":{"201":%1$s}}},
                  "/accounts/{id}":{"get":{"responses":{"200":%1$s}}}}}
                """
                    .formatted(json(account))),
            "accounts");
    assertThat(accounts.create().getFirst().fields())
        .extracting(HttpCollection.Placed::field)
        .containsExactly("name", "secret", "owner-mail");
    assertThat(accounts.readFields())
        .extracting(field -> field.key())
        .containsExactly("/id", "/name", "/owner/mail", "/owner/since");
  }

  @Test
  void pathsThatEndAlikeKeepApart() throws Exception {
    String order =
        ok(
            "{\"type\":\"array\",\"items\":{\"type\":\"object\",\"properties\":{\"id\":{\"type\":\"string\"},\"%s\":{\"type\":\"string\"}}}}");
    SystemDraft draft =
        draft(
            """
            {"openapi":"3.0.3","info":{"title":"Shops"},"paths":{
              "/shops/{shop}/orders":{"get":%s},"/orders":{"get":%s},
              "/users/{user}/orders":{"get":%s},"/old/users/orders":{"get":%s}}}
            """
                .formatted(
                    order.formatted("a"),
                    order.formatted("b"),
                    order.formatted("c"),
                    order.formatted("d")));
    assertThat(SystemReader.read(draft.document()).collections().keySet())
        .containsExactlyInAnyOrder("orders", "shops-orders", "users-orders", "users-orders-2");
    assertThat(collection(draft, "orders").list().orElseThrow().call().path()).isEqualTo("/orders");
  }

  private static final String PET =
      """
      {"type":"object","required":["name","photoUrls"],"properties":{
        "id":{"type":"integer","format":"int64"},"name":{"type":"string"},
        "photoUrls":{"type":"array","items":{"type":"string"}},
        "status":{"type":"string","enum":["available","pending","sold"]}}}
      """;

  /**
   * The larger petstore that is published as a sample with the tools for OpenAPI: a change by PUT
   * on the path of all, lists by status. Shortened; from memory.
   */
  @Test
  void changeOnThePathOfAllAndAListByStatusAreRecognised() throws Exception {
    SystemDraft draft =
        draft(
            """
            {"openapi":"3.0.4","info":{"title":"Petstore"},"servers":[{"url":"https://pets.example/api/v3"}],"paths":{
              "/pet":{"put":{"requestBody":%1$s,"responses":{"200":%1$s}},"post":{"requestBody":%1$s,"responses":{"200":%1$s}}},
              "/pet/findByStatus":{"get":{"parameters":[{"name":"status","in":"query","required":true,
                "schema":{"type":"string","default":"available","enum":["available","pending","sold"]}}],
                "responses":{"200":%2$s}}},
              "/pet/{petId}":{"get":{"responses":{"200":%1$s}},"delete":{"responses":{"200":{"description":"gone"}}}}}}
            """
                .formatted(json(PET), json("{\"type\":\"array\",\"items\":" + PET + "}")));
    HttpCollection pets = collection(draft, "pet");
    assertThat(pets.list().orElseThrow().call().path())
        .isEqualTo("/pet/findByStatus?status=available");
    HttpCollection.Write change = pets.change().getFirst();
    assertThat(change.call()).isEqualTo(new HttpCollection.Call("PUT", "/pet"));
    assertThat(change.whole()).isTrue();
    assertThat(pets.remove()).isPresent();
    assertThat(draft.remarks())
        .extracting(SystemDraft.Remark::text)
        .anySatisfy(
            text ->
                assertThat(text)
                    .isEqualTo(
                        "Only those are listed whose “status” is “available”; there are also pending, sold."));
  }

  /**
   * The petstore of Swagger 2.0, as the specification's repository has it; shortened, from memory.
   */
  @Test
  void swagger2IsConverted() throws Exception {
    SystemDraft draft =
        draft(
            """
            swagger: "2.0"
            info: { version: 1.0.0, title: Swagger Petstore }
            host: petstore.swagger.example
            basePath: /v1
            schemes: [https]
            consumes: [application/json]
            produces: [application/json]
            securityDefinitions: { key: { type: apiKey, in: header, name: api_key } }
            paths:
              /pets:
                get:
                  parameters: [{ name: limit, in: query, type: integer }]
                  responses:
                    "200": { description: all, schema: { type: array, items: { $ref: "#/definitions/Pet" } } }
                post:
                  parameters: [{ name: pet, in: body, required: true, schema: { $ref: "#/definitions/Pet" } }]
                  responses: { "201": { description: made, schema: { $ref: "#/definitions/Pet" } } }
              /pets/{petId}:
                get:
                  parameters: [{ name: petId, in: path, required: true, type: string }]
                  responses: { "200": { description: one, schema: { $ref: "#/definitions/Pet" } } }
            definitions:
              Pet:
                type: object
                required: [id, name]
                properties:
                  id: { type: integer, format: int64, readOnly: true }
                  name: { type: string }
                  tag: { type: string }
            """);
    assertThat(SystemReader.read(draft.document()).address())
        .hasToString("https://petstore.swagger.example/v1");
    assertThat(draft.document()).contains("api_key");
    HttpCollection pets = collection(draft, "pets");
    assertThat(pets.lists().orElseThrow()).hasToString("/id");
    assertThat(pets.create().getFirst().fields())
        .extracting(HttpCollection.Placed::field)
        .containsExactly("name", "tag");
  }

  @Test
  void swagger2ReferencesThatLeadElsewhereAreNotFollowed() {
    assertThatThrownBy(
            () ->
                draft(
                    """
                    {"swagger":"2.0","info":{"title":"x","version":"1"},"paths":{"/a":{"get":{"responses":
                      {"200":{"description":"a","schema":{"$ref":"http://169.254.169.254/x"}}}}}}}
                    """))
        .isInstanceOf(SystemDraft.Unusable.class)
        .hasMessageContaining("describes no records");
  }

  private static String large(int collections, String filler) {
    StringBuilder paths = new StringBuilder();
    for (int i = 0; i < collections; i++) {
      paths
          .append(i == 0 ? "" : ",")
          .append(
              "\"/things%1$d\":{\"get\":{\"description\":\"%2$s\",\"responses\":{\"200\":%3$s}}}"
                  .formatted(
                      i,
                      filler,
                      json(
                          "{\"type\":\"array\",\"items\":{\"type\":\"object\",\"properties\":{\"id\":{\"type\":\"string\"},\"f%d\":{\"type\":\"string\"}}}}"
                              .formatted(i))));
    }
    return "{\"openapi\":\"3.0.3\",\"info\":{\"title\":\"Large\"},\"paths\":{" + paths + "}}";
  }

  @Test
  void whatIsWantedOfManyIsDraftedAndTheRestLeft() throws Exception {
    var description = DescriptionText.parse(large(202, ""));
    List<SystemDraft.Offer> offers = SystemDraft.offers(description);
    assertThat(offers).hasSize(202);
    assertThat(offers.get(7))
        .extracting(SystemDraft.Offer::id, SystemDraft.Offer::path, SystemDraft.Offer::can)
        .isEqualTo(tuple("things7", "/things7", "list").toList());
    SystemDraft draft =
        SystemDraft.of(description, Optional.empty(), Set.of("things7", "things9")::contains);
    assertThat(SystemReader.read(draft.document()).collections())
        .containsOnlyKeys("things7", "things9");
  }

  @Test
  void descriptionOfThirtyMegabytesIsRead() throws Exception {
    String text = large(300, "x".repeat(100_000));
    assertThat(text.length()).isGreaterThan(30_000_000);
    assertThat(SystemDraft.offers(DescriptionText.parse(text))).hasSize(300);
    assertThatThrownBy(() -> DescriptionText.parse(text + " ".repeat(4 << 20)))
        .hasMessageContaining("longer than");
  }

  @Test
  void brokenJsonIsNamedWithItsPlace() {
    assertThatThrownBy(() -> draft("{\"openapi\":\"3.0.0\",\n  \"info\" {}}"))
        .hasMessageContaining("no JSON")
        .hasMessageContaining("line 2, column");
  }
}
