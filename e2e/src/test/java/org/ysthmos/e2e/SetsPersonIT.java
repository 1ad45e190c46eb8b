package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.SelectOption;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** Moving an exhibition, and seeing what moves before it moves. */
class SetsPersonIT extends InBrowser {

  private static final Map<String, String> TOKEN = Map.of("Authorization", "Bearer t");

  private String sheet() {
    return together.address("chore-table") + "/api/sheets/exhibitions/rows";
  }

  private void ask() {
    together.send(
        "POST",
        together.appAddress() + "/api/systems/chore-table/collections/exhibitions/ask",
        "",
        Map.of());
  }

  private Optional<JsonNode> job(String title) {
    return together.records("works-ledger").stream()
        .filter(job -> job.path("title").asText().equals(title))
        .reduce((first, newest) -> newest);
  }

  private boolean isDue(String title, String day) {
    return job(title).filter(one -> one.path("due").asText().equals(day)).isPresent();
  }

  private Locator line(String title) {
    return page.locator(".moves tr").filter(new Locator.FilterOptions().setHasText(title));
  }

  @Test
  void whatWouldMoveIsSeenBeforeAnExhibitionMoves() {
    together.clock(Instant.parse("2026-11-28T09:00:00Z"));
    String row =
        together
            .json(
                "POST",
                sheet(),
                """
                {"title":"Gulls","opens":"15 March 2027","house":"Long gallery","handbook":"gulls"}
                """,
                TOKEN)
            .path("id")
            .asText();
    page.waitForCondition(
        () -> {
          ask();
          // They are made beside each other, in no order.
          return together.records("works-ledger").stream()
                  .filter(job -> job.path("title").asText().endsWith(": Gulls"))
                  .count()
              == 6;
        });
    // Somebody begins with one of them.
    String plan = job("Plan the rooms: Gulls").orElseThrow().path("id").asText();
    together.send(
        "POST",
        together.address("works-ledger") + "/jobs/" + plan + "/status",
        "status=in-work",
        Map.of("Content-Type", "application/x-www-form-urlencoded"));

    page.navigate(together.appAddress() + "/bridges/exhibition-preparations");
    Locator set = page.getByLabel("The set of", new Page.GetByLabelOptions().setExact(true));
    set.selectOption(new SelectOption().setLabel("Gulls"));
    page.getByLabel("The day", new Page.GetByLabelOptions().setExact(true)).fill("2027-03-22");
    assertThat(page.locator(".moves"))
        .containsText("5 tasks at Works Ledger would change, 1 would stay.");
    assertThat(line("Opening: Gulls")).containsText("Mon 15 Mar 2027");
    assertThat(line("Opening: Gulls")).containsText("Mon 22 Mar 2027");
    assertThat(line("Plan the rooms: Gulls")).containsText("Someone has worked on it since");
    check(page, "what would move");
    page.getByLabel("or were taken away").focus();
    page.keyboard().press(" ");
    assertThat(line("Opening: Gulls")).containsText("Done");
    Assertions.assertThat(isDue("Opening: Gulls", "2027-03-15")).as("nothing was written").isTrue();

    together.send("PATCH", sheet() + "/" + row, "{\"opens\":\"22 March 2027\"}", TOKEN);
    page.waitForCondition(
        () -> {
          ask();
          return isDue("Opening: Gulls", "2027-03-22") && isDue("Look back: Gulls", "2027-03-29");
        });
    Assertions.assertThat(isDue("Plan the rooms: Gulls", "2027-03-22")).isFalse();
    together.send("PATCH", sheet() + "/" + row, "{\"opens\":\"\"}", TOKEN);
    page.waitForCondition(
        () -> {
          ask();
          return job("Opening: Gulls").orElseThrow().path("status").asText().equals("done");
        });
    Assertions.assertThat(job("Plan the rooms: Gulls").orElseThrow().path("status").asText())
        .isEqualTo("in-work");
  }
}
