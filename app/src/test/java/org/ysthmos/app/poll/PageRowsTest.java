package org.ysthmos.app.poll;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.ChangeGateway.SetAside;

class PageRowsTest {

  private static Changed record(String id, String text) {
    return new Changed(
        id,
        "1",
        Optional.empty(),
        Optional.empty(),
        JsonNodeFactory.instance.objectNode().put("id", id).put("text", text));
  }

  private static Page keepable(Changed... records) {
    return PageRows.keepable(
        "Ledger", new Page(List.of(records), Optional.of("2"), Optional.empty()));
  }

  @Test
  void whatCannotBeKeptIsSetAsideAndTheOthersAreKept() {
    Page page = keepable(record("a", ""), record("b", "x".repeat(1_000_100)), record("c", ""));
    assertThat(page.records()).extracting(Changed::id).containsExactly("a", "c");
    assertThat(page.next()).contains("2");
    SetAside aside = page.aside().getFirst();
    assertThat(aside.id()).isEqualTo("b");
    assertThat(aside.failure().kind()).isEqualTo(FailureKind.UNREADABLE);
    assertThat(aside.failure().message())
        .isEqualTo("The record “b” of Ledger has 1,000,120 bytes; at most 1,000,000 are kept");
    assertThat(aside.raw()).hasSize(SetAside.LONGEST_RAW + 1).startsWith("{\"id\":\"b\"");
  }

  @Test
  void idThatIsTooLongIsShortenedForPeopleAndStaysAnIdOfItsOwn() {
    String long1 = "x".repeat(600) + "1";
    String long2 = "x".repeat(600) + "2";
    List<SetAside> aside = keepable(record(long1, ""), record(long2, "")).aside();
    assertThat(aside)
        .extracting(SetAside::id)
        .doesNotHaveDuplicates()
        .allMatch(id -> id.length() <= 512);
    assertThat(aside.getFirst().failure().message()).contains("an id of 601 characters");
  }
}
