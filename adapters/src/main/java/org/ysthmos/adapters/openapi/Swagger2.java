package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.parser.converter.SwaggerConverter;
import io.swagger.v3.parser.core.models.ParseOptions;
import io.swagger.v3.parser.core.models.SwaggerParseResult;
import java.util.List;
import java.util.Optional;
import org.ysthmos.adapters.openapi.SystemDraft.Unusable;

/** Descriptions in Swagger 2.0, as OpenAPI was called before version 3. */
final class Swagger2 {

  private Swagger2() {}

  static boolean isOne(JsonNode description) {
    return description.path("swagger").asText().startsWith("2.");
  }

  /**
   * The same in OpenAPI 3. References are left as they are: one that leads elsewhere would have us
   * call whatever somebody wrote down.
   */
  static JsonNode converted(JsonNode description) throws Unusable {
    ParseOptions options = new ParseOptions();
    options.setResolve(false);
    SwaggerParseResult result =
        new SwaggerConverter().readContents(description.toString(), List.of(), options);
    if (result == null || result.getOpenAPI() == null) {
      String why =
          Optional.ofNullable(result)
              .map(SwaggerParseResult::getMessages)
              .map(messages -> String.join("; ", messages))
              .orElse("nothing of it was understood");
      throw new Unusable("It is written in Swagger 2.0 and cannot be converted: " + why + ".");
    }
    return Json.mapper().valueToTree(result.getOpenAPI());
  }
}
