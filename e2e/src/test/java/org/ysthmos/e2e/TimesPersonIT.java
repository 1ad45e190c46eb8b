package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import java.io.InputStream;
import java.net.URI;
import java.time.Instant;
import java.util.List;
import java.util.regex.Pattern;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.model.component.VEvent;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Making bridges that begin by themselves, by sentence. */
class TimesPersonIT extends InBrowser {

  /** So that the days off of the garden's calendar are to come. */
  @BeforeEach
  void lateInNovember() {
    together.clock(Instant.parse("2026-11-28T09:00:00Z"));
  }

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
    assertThat(sentence()).containsText("on the last working day of each month at 16:30");
    assertThat(named("At what time of day")).hasValue("16:30");
    assertThat(named("By which calendar")).hasValue("garden");
    assertThat(page.getByText(Pattern.compile("^moved from")).first()).isVisible();
    named("or in words").focus();
    page.keyboard().type("every blue moon");
    page.keyboard().press("Enter");
    assertThat(page.getByRole(AriaRole.ALERT)).containsText("says nothing that comes round");
    // What was good stays, and what was typed is there to be mended.
    assertThat(sentence()).containsText("on the last working day of each month");
    named("or in words").fill("every 10 days");
    page.keyboard().press("Enter");
    assertThat(sentence()).containsText("every 10 days at 16:30 in Lisbon");
    assertThat(page.getByRole(AriaRole.ALERT)).hasCount(0);
    button("Undo").click();
    assertThat(sentence()).containsText("on the last working day of each month");
    assertThat(rows()).hasCount(10);
  }

  /** The judge of the calendar is ical4j 4.4.0; another library writes it. */
  @Test
  void whatIsToComeIsSeenByTheWeekAndSubscribedTo() throws Exception {
    page.navigate(together.appAddress() + "/watch");
    link("what is to come").click();
    assertThat(page.getByText("Sat 28 Nov to Fri 4 Dec")).isVisible();
    assertThat(page.locator(".week section")).hasCount(7);
    checkAround(page, "what is to come, by the week");
    assertThat(page.locator(".week .entry.to_come").first())
        .containsText("Look through the climate faults of last week");
    button("Later").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("Sat 5 Dec to Fri 11 Dec")).isVisible();
    button("Today").click();
    button("As a list").click();
    assertThat(page.locator(".list")).containsText("Glasshouse works");
    check(page, "what is to come, as a list");
    page.getByLabel("Every bridge").selectOption("Partner call");
    assertThat(page.locator(".list .entry")).hasCount(1);
    assertThat(page.locator(".list .entry")).containsText("Call the partner garden in Auckland");
    page.reload();
    assertThat(page.locator(".list .entry")).hasCount(1);

    button("Subscribe").click();
    assertThat(page.getByText("There is no address so far.")).isVisible();
    button("Make an address").click();
    Locator address = page.getByLabel("The address of the calendar");
    assertThat(address).isVisible();
    check(page, "subscribing to what is to come");
    URI read = URI.create(together.appAddress() + URI.create(address.inputValue()).getPath());
    try (InputStream calendar = read.toURL().openStream()) {
      List<String> titles =
          new CalendarBuilder()
              .build(calendar).<VEvent>getComponents("VEVENT").stream()
                  .map(event -> event.getSummary().getValue())
                  .toList();
      Assertions.assertThat(titles)
          .contains(
              "Call the partner garden in Auckland",
              "Look through the climate faults of last week");
    }
  }
}
