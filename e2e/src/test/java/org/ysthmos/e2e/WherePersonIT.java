package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import org.junit.jupiter.api.Test;

/** The question most often put to whoever looks after bridges: why is there no task for this? */
class WherePersonIT extends InBrowser {

  /** One that came, from the search on Traces, by keyboard. */
  @Test
  void oneThatCameHasItsTask() {
    visitorReports("Moss on the steps", "23 November 2026");
    page.navigate(together.appAddress() + "/traces");
    assertThat(link("Moss garden bridge: Moss on the steps")).isVisible();
    link("Where is it?").focus();
    page.keyboard().press("Enter");
    page.getByLabel("What is known of it").fill("Moss on the steps");
    page.keyboard().press("Enter");
    assertThat(page.getByText("Its task is there, at Paths and trees of Grounds Board."))
        .isVisible();
    assertThat(page.getByLabel("At its source").getByText("It is there.")).isVisible();
    assertThat(page.getByLabel("Its task").getByText("It is there.")).isVisible();
    checkAround(page, "where it is, with its task");
  }

  /** One that was passed by says which condition stopped it, then and now. */
  @Test
  void oneThatWasPassedBySaysWhy() {
    String number = visitorReports("A leaf on the path", "23 November 2026", "1");
    page.navigate(together.appAddress() + "/traces");
    assertThat(page.getByText("passed by").first()).isVisible();
    page.navigate(together.appAddress() + "/where?text=" + number);
    assertThat(page.getByText("It came to Hazard report, which passed it by:")).isVisible();
    assertThat(page.getByText("It passes it by as it is now:")).isVisible();
    checkAround(page, "where it is, passed by");
  }

  /** One whose webhook was lost is found at its source, and is taken in. */
  @Test
  void oneWhoseWebhookWasLostIsTakenIn() throws Exception {
    together.fault(together.deskAddress(), "hook-lost", "", "", 1, 0);
    String number = visitorReports("A plank is gone", "23 November 2026", "8");
    page.navigate(together.appAddress() + "/where");
    page.getByLabel("What is known of it").fill(number);
    page.keyboard().press("Enter");
    button("Ask the sources for it, as an id").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("It is at its source, and its source never told of it.")).isVisible();
    checkAround(page, "where it is, lost");
    button("Take it in as it is now").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("Its task is there, at Paths and trees of Grounds Board."))
        .isVisible();
  }
}
