package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.junit.jupiter.api.Assertions.assertEquals;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What failed is sent again, and what ran away is stopped, as a person meets both. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
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

  @Order(1)
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

  /** The page of the incident that the newest alarm in the chat is about. */
  private static String alarm(String about) {
    Pattern page =
        Pattern.compile("(?s:.*)" + Pattern.quote(about) + "(?s:.*?)http\\S+(/incidents/\\d+)");
    List<String> found = new ArrayList<>();
    await()
        .atMost(Duration.ofSeconds(30))
        .until(
            () -> {
              together.records("garden-chat").stream()
                  .map(message -> message.path("text").asText())
                  .map(page::matcher)
                  .filter(Matcher::find)
                  .forEach(match -> found.add(match.group(1)));
              return !found.isEmpty();
            });
    return found.getLast();
  }

  /** Minutes go by, for the application and for the board that counts its calls. */
  private static void minutesGoBy(Instant to) {
    together.clock(to);
    together.send(
        "PUT",
        together.boardAddress() + "/control/clock",
        "{\"now\":\"%s\"}".formatted(to),
        Map.of("Content-Type", "application/json"));
  }

  private boolean isHeld(String bridge) {
    String at = together.appAddress() + "/api/bridges/" + bridge;
    return together
        .json("GET", at, "", Map.of())
        .at("/bridge/heldBecause")
        .asText()
        .contains("new tasks");
  }

  /** From the first alarm to the last event that is sent again. */
  @Order(2)
  @ParameterizedTest
  @EnumSource
  void theWholeBadDay(Hand hand) {
    ceiling(100);
    Instant morning = Instant.now().plus(Duration.ofMinutes(hand == Hand.MOUSE ? 20 : 40));
    minutesGoBy(morning);
    long north = onYard("yard-north");
    // An automation runs away …
    page.navigate(together.appAddress() + "/systems");
    hand.press(page, button("Practise a runaway…"));
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("North yard to South yard");
    check(page, "practising a runaway");
    hand.press(page, button("Let them run"));
    // Each has its twelve, besides the one that a person made: nobody writes to the board any more.
    await()
        .atMost(Duration.ofSeconds(60))
        .until(
            () ->
                isHeld("yard-north-to-south")
                    && onYard("yard-south") == 12
                    && onYard("yard-north") == north + 13);
    // … and the forms of everybody fail.
    together.fault(together.boardAddress(), "forbidden", "POST", "/api", 2, 0);
    List<String> failed = reports(hand + " loses its leaves", hand + " stands in water");
    failed.forEach(number -> together.awaitVerdict(number, "FAILED"));

    // The first alarm is a message in the chat, once it is a minute old.
    minutesGoBy(morning.plus(Duration.ofMinutes(2)));
    page.navigate(together.appAddress() + alarm("reacts to what it makes itself"));
    assertThat(page.getByText("North yard of Grounds Board → South yard of Grounds Board"))
        .isVisible();
    hand.press(page, link("South yard to North yard"));
    assertThat(page.getByText("It does not come to an end.")).isVisible();
    check(page, "a bridge in a circle");
    page.goBack();
    hand.press(page, button("Take back what it made…"));
    assertThat(page.getByText(Pattern.compile("\\d+ records would go"))).isVisible();
    check(page, "what would be taken back");
    hand.press(
        page,
        page.getByRole(
            AriaRole.BUTTON,
            new Page.GetByRoleOptions().setName(Pattern.compile("Take back \\d+ records"))));
    Locator dialog = page.getByRole(AriaRole.DIALOG);
    check(page, "beginning to take back");
    hand.tick(page, dialog.getByRole(AriaRole.CHECKBOX));
    hand.press(page, dialog.locator(".btn.main"));
    assertThat(page.getByText("ended", new Page.GetByTextOptions().setExact(true))).isVisible(LONG);
    assertThat(page.getByText("Nothing that comes later makes them again")).isVisible();
    check(page, "what was taken back");
    assertEquals(0, onYard("yard-south"));
    // The one that started it was made by nobody here, and stays.
    assertEquals(north + 1, onYard("yard-north"));
    hand.press(page, link("Its incident"));
    assertThat(page.getByText(Pattern.compile("Taken back: \\d+")).first()).isVisible();

    // What the forms could not bring is mended, looked at, and sent again.
    page.navigate(together.appAddress() + "/watch");
    Locator refused =
        page.getByRole(AriaRole.LISTITEM)
            .filter(new Locator.FilterOptions().setHasText("may not do this at Grounds Board"));
    hand.press(page, refused.getByRole(AriaRole.LINK).first());
    assertThat(page.getByText("It said “not allowed” to 2 events.").first()).isVisible();
    hand.type(page, page.getByLabel("A note for everyone who looks at this"), "It is given back");
    hand.press(page, button("I am mending this"));
    assertThat(page.getByText("Being mended: It is given back")).isVisible();
    hand.press(page, button("Send again…"));
    assertThat(dialog).containsText("Of 2 events, 2 would be created.");
    hand.press(page, button("Send 2 events again"));
    assertThat(page.getByText("Closed by itself").first()).isVisible(LONG);
    awaitTasks(failed);
  }

  @Order(3)
  @Test
  void whatWasTakenBackIsListed() {
    page.navigate(together.appAddress() + "/recalls");
    assertThat(page.getByText("taken back").first()).isVisible();
    check(page, "all that was taken back");
    link("Take back…").click();
    assertThat(page.getByLabel("Bridge")).isVisible();
    check(page, "what to take back");
  }

  /** What was chosen in a list is sent again by the keyboard alone. */
  @Order(4)
  @Test
  void aSelectionIsSentAgainByKeyboard() {
    List<String> numbers = reports("Quincunx one", "Quincunx two", "Quincunx three");
    awaitTasks(numbers);
    page.navigate(together.appAddress() + "/traces?text=quincunx");
    Locator rows = page.locator("tbody.lead tr");
    assertThat(rows).hasCount(3);
    rows.nth(1).getByRole(AriaRole.LINK).first().focus();
    page.keyboard().press(" ");
    page.keyboard().press("ArrowDown");
    page.keyboard().press(" ");
    assertThat(page.getByText("2 chosen")).isVisible();
    check(page, "traces of which some are chosen");
    Hand.KEYBOARD.press(page, button("Send again…"));
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("2 would be unchanged");
    check(page, "sending a selection again");
    Hand.KEYBOARD.press(page, button("Send 2 events again"));
    assertThat(page.getByText("2 events sent again")).isVisible();
    assertThat(rows).hasCount(5);
  }
}
