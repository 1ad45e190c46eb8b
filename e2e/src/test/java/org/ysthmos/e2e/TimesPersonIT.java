package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Making bridges that begin by themselves, by sentence. */
class TimesPersonIT extends InBrowser {

  private void begin(String name) {
    page.navigate(together.appAddress() + "/bridges");
    button("New bridge").click();
    page.getByText("when a time comes round").click();
    page.getByLabel("make a task in")
        .selectOption(new SelectOption().setLabel("Works Ledger: Jobs"));
    page.getByLabel("It is called").fill(name);
    button("Open its desk").click();
    assertThat(page.getByText("draft, not live yet")).isVisible();
  }

  private Locator sentence() {
    return page.locator("#times");
  }

  private Locator named(String label) {
    return page.getByLabel(label, new Page.GetByLabelOptions().setExact(true));
  }

  private Locator rows() {
    return page.locator(".times tbody tr");
  }

  private boolean jobIsMade(String title) {
    return together.records("works-ledger").stream()
        .anyMatch(job -> job.path("title").asText().equals(title));
  }

  @Test
  void everyFourthFridayIsSaidByChoicesAndRunByHand() {
    begin("Seed list");
    assertThat(sentence()).containsText("It begins by itself: every");
    for (String day : new String[] {"Friday", "Monday", "Tuesday", "Wednesday", "Thursday"}) {
      Locator pressed = button(day);
      boolean wanted = day.equals("Friday");
      if (Boolean.parseBoolean(pressed.getAttribute("aria-pressed")) != wanted) {
        pressed.click();
      }
    }
    for (String day : new String[] {"Saturday", "Sunday"}) {
      if (Boolean.parseBoolean(button(day).getAttribute("aria-pressed"))) {
        button(day).click();
      }
    }
    named("Every how many").fill("4");
    named("Every how many").press("Tab");
    named("In which zone").selectOption("Pacific/Auckland");
    named("At what time of day").fill("06:00");
    assertThat(sentence()).containsText("every fourth Friday at 06:00 in Auckland");
    assertThat(rows()).hasCount(10);
    assertThat(rows().first()).containsText("Fri");
    // Six in the morning there is the evening before here.
    assertThat(rows().first()).containsText("Thu");
    String first = rows().first().locator("td").first().innerText();
    rows().first().getByText("Leave out").click();
    assertThat(page.getByText("Left out:")).isVisible();
    assertThat(rows().first()).not().containsText(first);
    named("On a day that is no working day")
        .selectOption(new SelectOption().setLabel("it goes to the next working day"));
    assertThat(sentence()).containsText("on the next working day if that is none");
    // The first of January 2027 is a day off of the garden.
    named("From which day").fill("2027-01-01");
    assertThat(rows().first()).containsText("moved from Fri 1 Jan 2027, a day off");
    assertThat(rows().first()).containsText("Mon 4 Jan 2027");
    checkAround(page, "the desk of a bridge that begins by itself");

    button("Go live").click();
    page.getByRole(AriaRole.DIALOG)
        .getByText("Go live", new Locator.GetByTextOptions().setExact(true))
        .click();
    assertThat(page.getByText("live, version 1")).isVisible();
    assertThat(page.getByText("every fourth Friday at 06:00 in Auckland").first()).isVisible();
    check(page, "a bridge that begins by itself");
    page.getByLabel("Run now: Mon 4 Jan 2027 06:00").click();
    button("Run it now").click();
    assertThat(page.getByText("run by hand already")).isVisible();
    page.waitForCondition(() -> jobIsMade("Seed list"));
    link("its trace").click();
    assertThat(page.getByText("Run by hand by person")).isVisible();
  }

  @Test
  void wordsAreTakenByKeyboardAndWhatCannotBeReadIsSaid() {
    begin("Meter readings");
    named("or in words").focus();
    page.keyboard().type("the last working day of each month at 16:30");
    page.keyboard().press("Enter");
    // No calendar is said so far; the refusal says what to do.
    assertThat(page.getByRole(AriaRole.ALERT)).containsText("say which days are working days");
    named("On a day that is no working day")
        .selectOption(new SelectOption().setLabel("it goes to the working day before"));
    assertThat(sentence()).containsText("on the last working day of each month at 16:30");
    named("or in words").focus();
    page.keyboard().type("every blue moon");
    page.keyboard().press("Enter");
    assertThat(page.getByRole(AriaRole.ALERT)).containsText("says nothing that comes round");
    button("Undo").click();
    assertThat(sentence()).containsText("on the last working day of each month");
    assertThat(rows()).hasCount(10);
    assertThat(page.getByText(Pattern.compile("^moved from")).first()).isVisible();
  }
}
