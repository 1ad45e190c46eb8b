package org.ysthmos.app.problem;

import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.cfg.JsonNodeFeature;
import org.springframework.boot.autoconfigure.jackson.Jackson2ObjectMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/**
 * How bodies are read as JSON: numbers digit by digit, and texts as long as the longest that
 * anything takes, a pasted description.
 */
@Configuration(proxyBeanMethods = false)
class JsonBodies {

  private static final int LONGEST = 33 << 20;

  @Bean
  Jackson2ObjectMapperBuilderCustomizer bodiesAsWritten() {
    return builder ->
        builder
            .featuresToEnable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            .postConfigurer(
                mapper -> {
                  mapper.setConfig(
                      mapper
                          .getDeserializationConfig()
                          .without(JsonNodeFeature.STRIP_TRAILING_BIGDECIMAL_ZEROES));
                  mapper
                      .getFactory()
                      .setStreamReadConstraints(
                          StreamReadConstraints.builder().maxStringLength(LONGEST).build());
                });
  }
}
