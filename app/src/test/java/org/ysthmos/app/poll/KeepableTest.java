package org.ysthmos.app.poll;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Page;

class KeepableTest {

  private static Page page(String id, String text) {
    ObjectNode record = JsonNodeFactory.instance.objectNode().put("id", id).put("text", text);
    Changed changed = new Changed(id, "1", Optional.empty(), Optional.empty(), record);
    return new Page(List.of(changed), Optional.empty(), Optional.empty());
  }

  @Test
  void idsAndBodiesAreKeptUpToTheirLimits() {
    assertThat(Keepable.problem("Library", page("x".repeat(512), "y"))).isEmpty();
    assertThat(Keepable.problem("Library", page("x", "y".repeat(999_000)))).isEmpty();
  }

  @Test
  void longerIdIsNamedWithWhatToDo() {
    assertThat(Keepable.problem("Library", page("x".repeat(513), "y")))
        .hasValueSatisfying(
            failure -> {
              assertThat(failure.message()).contains("513 characters").contains("at most 512");
              assertThat(failure.remedy().orElse("")).contains("shorter");
            });
  }

  /** Measured in bytes, as it is kept in UTF-8. */
  @Test
  void largerRecordIsNamedWithItsSize() {
    assertThat(Keepable.problem("Library", page("doc-7", "é".repeat(500_001))))
        .hasValueSatisfying(
            failure ->
                assertThat(failure.message()).contains("doc-7", "1,000,026 bytes", "1,000,000"));
  }
}
