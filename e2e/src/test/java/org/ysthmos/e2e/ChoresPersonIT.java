package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Letting the rows of a table come round by themselves. */
class ChoresPersonIT extends InBrowser {

  private void row(String round, String every, String lastDone) {
    together.send(
        "POST",
        together.address("chore-table") + "/api/sheets/rounds/rows",
        """
        {"round":"%s","every":"%s","lastDone":"%s"}
        """
            .formatted(round, every, lastDone),
        Map.of("Authorization", "Bearer t"));
  }

  private Locator named(String label) {
    return page.getByLabel(label, new Page.GetByLabelOptions().setExact(true));
  }

  private Locator rows() {
    return page.locator(".chores tbody tr");
  }

  private boolean jobIsMade(String title) {
    return together.records("works-ledger").stream()
        .anyMatch(job -> job.path("title").asText().equals(title));
  }

  @Test
  void rowsComeRoundAsTheySayAndABadOneStopsNoOther() {
    together.clock(Instant.parse("2026-11-28T09:00:00Z"));
    row("Trim the hedges", "every Monday", "");
    row("Empty the traps", "10 days after it was done", "2026-11-25");
    row("Wonder about it", "once in a blue moon", "");
    page.navigate(together.appAddress() + "/bridges");
    button("New bridge").click();
    page.getByLabel("When something happens in")
        .selectOption(new SelectOption().setLabel("Chore Table: Rounds"));
    page.getByLabel("make a task in")
        .selectOption(new SelectOption().setLabel("Works Ledger: Jobs"));
    page.getByLabel("It is called").fill("Hedges and traps");
    button("Open its desk").click();
    assertThat(page.getByText("draft, not live yet")).isVisible();

    Locator itself = page.getByLabel("Each round comes round by itself, as its row says");
    itself.focus();
    page.keyboard().press(" ");
    assertThat(named("How often")).hasValue("/cells/every");
    named("When it was done last")
        .selectOption(new SelectOption().setLabel("stands in “last done”"));
    assertThat(page.getByText("1 row cannot be used")).isVisible();
    assertThat(rows().first()).containsText("“once in a blue moon” says nothing that comes round");
    assertThat(rows().filter(new Locator.FilterOptions().setHasText("Trim the hedges")))
        .containsText("Mon 30 Nov 2026");
    assertThat(rows().filter(new Locator.FilterOptions().setHasText("Empty the traps")))
        .containsText("Sat 5 Dec 2026");
    named("Its task is made before it is due, by days or working days")
        .selectOption(new SelectOption().setLabel("the same for all"));
    named("Its task is made before it is due, by days or working days: for all").fill("soon");
    page.keyboard().press("Tab");
    assertThat(page.getByRole(AriaRole.ALERT)).containsText("does not say how long before");
    named("Its task is made before it is due, by days or working days: for all").fill("2 days");
    page.keyboard().press("Tab");
    assertThat(page.getByRole(AriaRole.ALERT)).hasCount(0);
    assertThat(rows().filter(new Locator.FilterOptions().setHasText("Empty the traps")))
        .containsText("made 2 days before");
    checkAround(page, "the desk of rows that come round");
    AtTheDesk.open(page, "title");
    button("Pick from arriving").click();
    page.getByTitle("Use round", new Page.GetByTitleOptions().setExact(true)).click();
    assertThat(page.locator("#rule-title .now")).hasText("Trim the hedges");
    button("Go live").click();
    page.getByRole(AriaRole.DIALOG)
        .getByText("Go live", new Locator.GetByTextOptions().setExact(true))
        .click();
    assertThat(page.getByText("live, version 1")).isVisible();
    check(page, "a bridge over rows that come round");
    // What is due on Monday is made two days before, so at once.
    page.waitForCondition(() -> jobIsMade("Trim the hedges"));
    page.reload();
    assertThat(page.getByText("at rest").first()).isVisible();
    page.getByText("1 row at rest").click();
    assertThat(page.locator("details").first()).containsText("Wonder about it");
    page.getByLabel("Run now: Empty the traps, Sat 5 Dec 06:00").click();
    button("Run it now").click();
    page.waitForCondition(() -> jobIsMade("Empty the traps"));
    link("its trace").click();
    assertThat(page.getByText("Run by hand by person")).isVisible();
    page.navigate(together.appAddress() + "/to-come");
    button("As a list").click();
    assertThat(page.locator(".list").getByText("Trim the hedges").first()).isVisible();
  }
}
