package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import org.junit.jupiter.api.BeforeEach;

/** What every test at the desk does there. */
abstract class AtTheDesk extends InBrowser {

  static final String DESK = "/bridges/hazard-to-grounds/desk";

  @BeforeEach
  void realEventsAreThere() {
    visitorReports("Step wobbles", "23 November 2026");
  }

  void openDesk(Page at) {
    at.navigate(together.appAddress() + DESK);
    assertThat(at.locator("#rule-due")).isVisible();
    Locator own = at.locator(".sample", new Page.LocatorOptions().setHasText("added"));
    for (int left = own.count(); left > 0; left--) {
      own.first().click();
      at.getByText("Remove", new Page.GetByTextOptions().setExact(true)).first().click();
      assertThat(own).hasCount(left - 1);
    }
    // Each test begins with the live version.
    Locator giveUp = at.getByText("Give up the draft");
    if (giveUp.isEnabled()) {
      giveUp.click();
      assertThat(giveUp).isDisabled();
    }
  }

  static Locator rule(Page at, String field) {
    return at.locator("#rule-" + field);
  }

  static void open(Page at, String field) {
    rule(at, field).locator(".head").click();
  }

  void add(String what, String name) {
    Locator box =
        page.getByRole(
            AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Add a " + what).setExact(true));
    box.fill(name);
    box.press("Enter");
  }

  static void kept(Page at) {
    assertThat(at.locator(".state")).hasText("Kept");
  }

  boolean madeATask(String title) {
    for (JsonNode task : together.tasks()) {
      if (task.path("title").asText().equals(title)) {
        return true;
      }
    }
    return false;
  }

  void fromTheVisitorDesk() {
    page.getByLabel("When something happens in")
        .selectOption(new SelectOption().setLabel("Visitor Desk: Hazard reports"));
    page.getByLabel("make a task in")
        .selectOption(new SelectOption().setLabel("Grounds Board: Paths and trees"));
  }

  /** Begins a bridge from the form to the first board and comes to its desk. */
  void begin(String name, String starter) {
    page.navigate(together.appAddress() + "/bridges");
    button("New bridge").click();
    fromTheVisitorDesk();
    page.getByText(starter).click();
    page.getByLabel("It is called").fill(name);
    button("Open its desk").click();
    assertThat(page.getByText("draft, not live yet")).isVisible();
  }

  /** Moves the focus on until it stands on what is labelled so. */
  void tabToLabel(String label) {
    String labelOf =
        "(e => e.getAttribute('aria-label') || (e.labels && e.labels[0] ?"
            + " e.labels[0].textContent.trim() : ''))(document.activeElement)";
    for (int i = 0; i < 80; i++) {
      page.keyboard().press("Tab");
      if (String.valueOf(page.evaluate(labelOf)).startsWith(label)) {
        return;
      }
    }
    throw new AssertionError("the keyboard does not reach “" + label + "”");
  }
}
