package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.SerializationFeature;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/**
 * The screens are compiled against a copy of the API's description. Run with {@code
 * -Ddescription.write=true} to write the copy anew.
 */
class ApiDescriptionIT extends AppTestBase {

  private static final Path COPY = Path.of("..", "web", "openapi.json");

  @Test
  void copyForTheScreensIsTheDescriptionAsItIs() throws Exception {
    JsonNode live = api("/openapi.json");
    if (Boolean.getBoolean("description.write")) {
      Files.writeString(
          COPY, JSON.writer(SerializationFeature.INDENT_OUTPUT).writeValueAsString(live) + "\n");
    }
    assertThat(JSON.readTree(COPY.toFile()))
        .as("web/openapi.json is not what the application describes; see docs/ARCHITECTURE.md")
        .isEqualTo(live);
  }
}
