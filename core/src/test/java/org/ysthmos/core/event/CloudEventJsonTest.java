package org.ysthmos.core.event;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.ObjectMapper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CloudEventJsonTest {

  private static final ObjectMapper JSON = new ObjectMapper();

  /** Source: CloudEvents 1.0.2 JSON Event Format, section 3, with our two tokens in its source. */
  private static final String EXAMPLE =
      """
      {"specversion":"1.0","type":"com.example.someevent","source":"/mycontext/things",
       "subject":"123","id":"A234-1234-1234","time":"2018-04-05T17:31:00Z",
       "comexampleextension1":"value","datacontenttype":"application/json",
       "data":{"appinfoA":"abc","appinfoB":123,"appinfoC":true}}
      """;

  @Test
  void readsTheExampleOfTheStandardAndWritesItAgain() throws Exception {
    Event event = CloudEventJson.read(JSON.readTree(EXAMPLE));
    assertThat(event.id()).isEqualTo("A234-1234-1234");
    assertThat(event.kind()).isEqualTo("com.example.someevent");
    assertThat(event.collection()).isEqualTo("things");
    assertThat(event.data().path("appinfoB").asInt()).isEqualTo(123);
    assertThat(CloudEventJson.read(CloudEventJson.write(event))).isEqualTo(event);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "\"1.0\";\"0.3\";“specversion” is 1.0",
        "/mycontext/things;https://x;“source” is written /system/collection",
        "2018-04-05T17:31:00Z;yesterday;“time” is written as RFC 3339 says",
        "\"subject\":\"123\",;'';the attribute “subject” is missing",
        "\"data\":;\"data_base64\":;put the JSON under “data”"
      })
  void whatIsNoEventSaysWhy(String right, String wrong, String says) {
    assertThat(EXAMPLE).contains(right);
    assertThatThrownBy(() -> CloudEventJson.read(JSON.readTree(EXAMPLE.replace(right, wrong))))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining(says);
  }
}
