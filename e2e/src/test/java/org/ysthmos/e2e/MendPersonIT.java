package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.junit.jupiter.api.Assertions.assertEquals;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** What failed is sent again, and what ran away is stopped, as a person meets both. */
class MendPersonIT extends InBrowser {

  private static final LocatorAssertions.IsVisibleOptions LONG =
      new LocatorAssertions.IsVisibleOptions().setTimeout(90_000);

  private static void ceiling(int creates) {
    String at = together.appAddress() + "/api/bridges/hazard-to-grounds";
    String document = together.json("GET", at, "", Map.of()).path("document").asText();
    together.send(
        "PUT",
        at + "/document",
        document.replaceAll(
            "(?m)^ceiling: .*$", "ceiling: { creates: %d, per: PT1H }".formatted(creates)),
        Map.of("Content-Type", "application/yaml"));
  }

  private static void awaitTasks(List<String> numbers) {
    await()
        .atMost(Duration.ofSeconds(30))
        .until(() -> numbers.stream().allMatch(number -> together.tasksOf(number).size() == 1));
  }

  private static List<String> reports(String... problems) {
    return Stream.of(problems).map(problem -> together.report(problem, "5")).toList();
  }

  @Test
  void failuresAreSentAgainTogetherAndARunawayHoldsItself() {
    // Two that fail, and the same once more: what fails counts, too.
    ceiling(4);
    together.fault(together.boardAddress(), "forbidden", "POST", "/api", 2, 0);
    List<String> failed = reports("Loose step", "Broken rail");
    failed.forEach(number -> together.awaitVerdict(number, "FAILED"));

    page.navigate(together.appAddress() + "/watch");
    assertThat(page.getByText("Our account may not do this at Grounds Board")).isVisible();
    assertThat(page.getByText("2 events wait, at Hazard report")).isVisible();
    link("See the incident").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("It said “not allowed” to 2 events.").first()).isVisible();
    check(page, "an incident");
    page.getByLabel("A note for everyone who looks at this").fill("Rui gives it back");
    button("I am mending this").press("Enter");
    assertThat(page.getByText("Being mended: Rui gives it back")).isVisible();

    button("Send again…").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("2 events would cross once more");
    assertThat(button("Send 2 events again")).isFocused();
    button("See what each would become").press("Enter");
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("Of 2 events, 2 would be created.");
    check(page, "sending again");
    button("Send 2 events again").press("Enter");
    assertThat(page.getByText("Closed by itself")).isVisible();

    page.navigate(together.appAddress() + "/incidents");
    assertThat(link("Our account may not do this at Grounds Board")).isVisible();
    check(page, "incidents");
    page.navigate(together.appAddress() + "/watch");
    assertThat(page.getByText("all 2 sent, none failed again")).isVisible();
    check(page, "watch with what was sent again");
    awaitTasks(failed);

    List<String> more = reports("Wet leaves", "Deep puddle");
    assertThat(page.getByText("It would have come to 5 new tasks")).isVisible();
    link("See the incident").click();
    link("See the held bridge").click();
    assertThat(page.getByText("4 in the last hour")).isVisible();
    check(page, "a bridge at its ceiling");
    ceiling(10);
    button("Release…").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("would be created");
    button("Release it").press("Enter");
    awaitTasks(more);
    awaitTasks(failed);
  }

  /** As the board wrote it down: its calls of a minute may be used up. */
  private static long onYard(String yard) {
    return together.tasks().stream()
        .filter(task -> task.path("board").asText().equals(yard))
        .count();
  }

  @Test
  void runawayIsPractisedAndWhatItMadeIsTakenBack() {
    page.navigate(together.appAddress() + "/systems");
    button("Practise a runaway…").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("North yard to South yard");
    check(page, "practising a runaway");
    button("Let them run").press("Enter");

    Locator loop =
        page.getByRole(AriaRole.LISTITEM)
            .filter(new Locator.FilterOptions().setHasText("reacts to what it makes itself"));
    assertThat(loop).isVisible(LONG);
    loop.getByRole(AriaRole.LINK).click();
    assertThat(page.getByText("North yard of Grounds Board → South yard of Grounds Board"))
        .isVisible();
    link("South yard to North yard").click();
    assertThat(page.getByText("It does not come to an end.")).isVisible();
    check(page, "a bridge in a circle");
    page.goBack();
    button("Take back what it made…").press("Enter");
    assertThat(page.getByText(Pattern.compile("\\d+ records would go"))).isVisible();
    check(page, "what would be taken back");
    Locator begin =
        page.getByRole(
            AriaRole.BUTTON,
            new Page.GetByRoleOptions().setName(Pattern.compile("Take back \\d+ records")));
    begin.focus();
    page.keyboard().press("Enter");
    Locator dialog = page.getByRole(AriaRole.DIALOG);
    check(page, "beginning to take back");
    // It halves the calls; the board answers only so many in a minute.
    dialog.getByRole(AriaRole.CHECKBOX).check();
    dialog.locator(".btn.main").press("Enter");
    assertThat(page.getByText("ended", new Page.GetByTextOptions().setExact(true))).isVisible(LONG);
    assertThat(page.getByText("Nothing that comes later makes them again")).isVisible();
    check(page, "what was taken back");
    assertEquals(0, onYard("yard-south"));
    // The one that started it was made by nobody here, and stays.
    assertEquals(1, onYard("yard-north"));

    link("Its incident").click();
    assertThat(page.getByText(Pattern.compile("Taken back: \\d+"))).isVisible();
    page.navigate(together.appAddress() + "/recalls");
    assertThat(page.getByText("taken back").first()).isVisible();
    check(page, "all that was taken back");
    link("Take back…").click();
    assertThat(page.getByLabel("Bridge")).isVisible();
    check(page, "what to take back");
  }
}
