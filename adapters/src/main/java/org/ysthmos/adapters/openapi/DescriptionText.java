package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.net.URI;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.ysthmos.adapters.http.HttpCaller;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.http.HttpFailures;
import org.ysthmos.adapters.http.HttpProtocol;
import org.ysthmos.adapters.openapi.SystemDraft.Unusable;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.gateway.RemoteCall.Purpose;
import org.ysthmos.core.json.Pointer;

/** The text of an OpenAPI description: JSON, or YAML of which JSON is a part. */
public final class DescriptionText {

  private static final int LONGEST = 32 << 20;
  private static final JsonMapper JSON =
      JsonMapper.builder(
              JsonFactory.builder()
                  .streamReadConstraints(
                      StreamReadConstraints.builder().maxStringLength(LONGEST).build())
                  .build())
          .build();

  private DescriptionText() {}

  /**
   * @throws Unusable if it can be read as neither
   */
  public static JsonNode parse(String text) throws Unusable {
    if (text.length() > LONGEST) {
      throw new Unusable("It is longer than " + LONGEST + " characters.");
    }
    // JSON is YAML too, but a long one is read many times faster as what it is.
    Optional<String> noJson = Optional.empty();
    if (text.stripLeading().startsWith("{")) {
      try {
        return JSON.readTree(text);
      } catch (JsonProcessingException e) {
        noJson = Optional.of("It is no JSON: " + e.getOriginalMessage() + at(e.getLocation()));
      }
    }
    try {
      Object loaded =
          new Load(LoadSettings.builder().setCodePointLimit(LONGEST).build()).loadFromString(text);
      return loaded == null ? MissingNode.getInstance() : JSON.valueToTree(loaded);
    } catch (YamlEngineException | IllegalArgumentException e) {
      throw new Unusable(noJson.orElse("It is neither JSON nor YAML: " + e.getMessage()));
    }
  }

  private static String at(@Nullable JsonLocation location) {
    return location == null
        ? ""
        : " (line %d, column %d)".formatted(location.getLineNr(), location.getColumnNr());
  }

  /**
   * Reads a description where it is published.
   *
   * @throws Unusable if it cannot be read there; the message says why
   */
  public static String read(URI address, Surroundings surroundings) throws Unusable {
    try (HttpCaller caller = HttpCaller.plain(address, surroundings)) {
      HttpCaller.Answer answer =
          caller.call(
              new HttpCaller.Sending(Purpose.READ, "GET", address, Map.of(), "", "", true),
              call -> {});
      if (answer instanceof Answered answered && answered.status() / 100 == 2) {
        return answered.body().asText();
      }
      Pointer nowhere = Pointer.parse("/detail");
      var failures =
          new HttpFailures(
              HttpCaller.plainly(address),
              new HttpProtocol.ProblemShape(nowhere, nowhere, Optional.empty()));
      throw new Unusable(failures.of(answer, false).message() + ".");
    }
  }
}
