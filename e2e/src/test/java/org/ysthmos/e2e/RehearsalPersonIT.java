package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Somebody changes a rule and wants to know first what it would have made of what came before. */
class RehearsalPersonIT extends InBrowser {

  /** By keyboard: a draft is changed, rehearsed, looked through, and put to work knowing it. */
  @Test
  void draftIsRehearsedOverWhatCameBeforeItGoesLive() {
    visitorReports("Moss on the steps", "23 November 2026");
    visitorReports("A leaf on the path", "23 November 2026", "1");
    page.navigate(together.appAddress() + "/traces");
    assertThat(page.getByText("passed by").first()).isVisible();
    assertThat(link("Moss garden bridge: Moss on the steps")).isVisible();

    page.navigate(together.appAddress() + "/bridges/hazard-to-grounds/desk");
    page.getByText("shortened to 120 characters").first().waitFor();
    // Without the second test of the condition, the small ones become tasks as well.
    button("Remove").nth(1).focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("draft over version 1")).isVisible();
    assertThat(page.getByText("Kept", new Page.GetByTextOptions().setExact(true))).isVisible();

    link("Rehearse…").focus();
    page.keyboard().press("Enter");
    page.locator("form")
        .getByText("Rehearse", new Locator.GetByTextOptions().setExact(true))
        .last()
        .focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText(Pattern.compile("\\d+ comes? to something else"))).isVisible();
    checkAround(page, "rehearsal");

    page.locator("[aria-label$='then passed by, now new task']").focus();
    page.keyboard().press("Enter");
    page.locator("[aria-expanded=false]").first().focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("Then:")).isVisible();
    checkAround(page, "rehearsal, one opened");
    link("The trace of then").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("passed by").first()).isVisible();

    page.navigate(together.appAddress() + "/bridges/hazard-to-grounds/desk");
    // It is ready once the draft was tried on the events of the desk.
    assertThat(button("Go live…")).isEnabled();
    button("Go live…").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("Put version 2 to work")).isVisible();
    assertThat(page.getByText(Pattern.compile("Rehearsed today .* to something else"))).isVisible();
  }
}
