package org.ysthmos.core.bridge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.dialect.Dialects;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.SequencedMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentText;
import org.ysthmos.core.reference.BridgeSchema;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.HazardReports;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.testkit.Shores;

/** Bridges as documents: read, written, and judged by the published schema. */
class BridgeDocumentTest {

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final Schema SCHEMA =
      SchemaRegistry.withDefaultDialect(Dialects.getDraft202012())
          .getSchema(BridgeSchema.write().toString(), InputFormat.JSON);

  private static List<String> bridges() {
    return Garden.BRIDGES;
  }

  /** Reading what was written gives the same definition; writing again gives the same bytes. */
  @ParameterizedTest
  @MethodSource("bridges")
  void goesRoundWithoutLoss(String id) {
    BridgeDefinition first = BridgeReader.read(DocumentNode.parse(Garden.document(id)));
    String written = BridgeWriter.write(first);
    BridgeDefinition second = BridgeReader.read(DocumentNode.parse(written));
    assertThat(second).isEqualTo(first);
    assertThat(BridgeWriter.write(second)).isEqualTo(written);
    assertThat(BridgeCompiler.compile(written, 1, Garden.CATALOG).definition()).isEqualTo(first);
  }

  /** The desk keeps every scalar as a text. */
  @Test
  void flagInQuotesIsAFlag() {
    String plain = HazardReports.DOCUMENT.replace("event: [", "own-writes: true, event: [");
    String quoted = plain.replace("own-writes: true", "own-writes: \"true\"");
    assertThat(quoted).isNotEqualTo(plain);
    BridgeDefinition read = BridgeReader.read(DocumentNode.parse(quoted));
    assertThat(read).isEqualTo(BridgeReader.read(DocumentNode.parse(plain)));
    assertThat(read.from().ownWrites()).isTrue();
  }

  /** Each step in its own document: what a step says is kept by the document, sign for sign. */
  @Test
  void textsThatYamlWouldReadAsSomethingElseComeBackAsTexts() {
    Seeds.forSeeds(
        500,
        seeds -> {
          String odd =
              seeds.oneOf("yes", "null", "1e3", "~", "a: b", "- x", "#", "'", "\"", "\n", "")
                  + seeds.text().replace("\u0000", "").replace("\u202e", "");
          SequencedMap<String, Object> document = new LinkedHashMap<>();
          document.put("text", odd);
          DocumentNode read = DocumentNode.parse(DocumentText.write(document));
          assertThat(read.need("text").text()).isEqualTo(odd);
        });
  }

  /** Source: the JSON Schema validator of the networknt project judges, draft 2020-12. */
  @ParameterizedTest
  @MethodSource("bridges")
  void publishedSchemaAcceptsWhatTheReaderAccepts(String id) throws Exception {
    assertThat(validate(Garden.document(id))).isEmpty();
    BridgeDefinition definition = BridgeReader.read(DocumentNode.parse(Garden.document(id)));
    assertThat(validate(BridgeWriter.write(definition))).isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "match: [/submission];match: /submission",
        "purpose:;porpose:",
        "- move: P7D;- mve: P7D",
        "always: reported;always: { a: b }",
        "is: present;is: there",
        "creates: 120;creates: none",
        "none: fail;none: explode",
        "bridge: hazard-to-grounds;bridge: Hazard!",
        "at: { time: \"17:00\", zone;at: { tim: \"17:00\", zone"
      })
  void publishedSchemaRefusesWhatTheReaderRefuses(String right, String wrong) throws Exception {
    String document = Garden.document("hazard-to-grounds").replace(right, wrong);
    assertThat(validate(document)).isNotEmpty();
    assertThatThrownBy(() -> BridgeReader.read(DocumentNode.parse(document)))
        .isInstanceOf(DocumentException.class);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "if-gone: part; if-gone: parted",
        "to-left: same; to-left: other",
        "drift: restore; drift: perhaps",
        "system: ledger; sistem: ledger",
        "fields:; match: [/id]\\nfields:"
      })
  void publishedSchemaKnowsBridgesThatGoBothWays(String right, String wrong) throws Exception {
    assertThat(validate(Shores.BRIDGE)).isEmpty();
    String document = Shores.BRIDGE.replace(right, wrong.replace("\\n", "\n"));
    assertThat(document).isNotEqualTo(Shores.BRIDGE);
    assertThat(validate(document)).isNotEmpty();
    assertThatThrownBy(() -> BridgeReader.read(DocumentNode.parse(document)))
        .isInstanceOf(DocumentException.class);
  }

  private static List<com.networknt.schema.Error> validate(String yaml) throws Exception {
    Object read = new Load(LoadSettings.builder().build()).loadFromString(yaml);
    return SCHEMA.validate(JSON.writeValueAsString(read), InputFormat.JSON);
  }
}
