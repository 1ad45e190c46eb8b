package org.ysthmos.core.value;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.StringWriter;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.testkit.Seeds;

class ValueJsonTest {

  private static final ObjectMapper JSON = new ObjectMapper();

  @Test
  void keptAndReadAgainEveryValueIsTheSame() {
    Seeds.forSeeds(
        1000,
        seeds -> {
          Value value = seeds.value();
          try {
            assertThat(ValueJson.read(JSON.readTree(ValueJson.write(value).toString())))
                .isEqualTo(value);
          } catch (IOException e) {
            throw new AssertionError(e);
          }
        });
  }

  @Test
  void writtenAsATreeOrAsAStreamItIsTheSame() {
    Seeds.forSeeds(
        1000,
        seeds -> {
          Value value = seeds.value();
          StringWriter stream = new StringWriter();
          try (JsonGenerator json = JSON.createGenerator(stream)) {
            ValueJson.write(value, json);
          } catch (IOException e) {
            throw new AssertionError(e);
          }
          assertThat(stream).hasToString(ValueJson.write(value).toString());
        });
  }

  @Test
  void whatWasNotKeptByUsIsRefused() {
    assertThatThrownBy(() -> ValueJson.read(JSON.readTree("{\"colour\":\"green\"}")))
        .hasMessageContaining("colour");
  }
}
