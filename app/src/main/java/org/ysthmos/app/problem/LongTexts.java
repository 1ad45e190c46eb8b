package org.ysthmos.app.problem;

import com.fasterxml.jackson.core.StreamReadConstraints;
import org.springframework.boot.autoconfigure.jackson.Jackson2ObjectMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Lets a text in a body be as long as the longest that anything takes: a pasted description. */
@Configuration(proxyBeanMethods = false)
class LongTexts {

  private static final int LONGEST = 33 << 20;

  @Bean
  Jackson2ObjectMapperBuilderCustomizer longestText() {
    return builder ->
        builder.postConfigurer(
            mapper ->
                mapper
                    .getFactory()
                    .setStreamReadConstraints(
                        StreamReadConstraints.builder().maxStringLength(LONGEST).build()));
  }
}
