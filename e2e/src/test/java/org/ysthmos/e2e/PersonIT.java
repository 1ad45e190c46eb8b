package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What a person does, in a real browser against real processes. */
class PersonIT extends InBrowser {

  private static final String TITLE = "Moss garden bridge: Handrail is broken at the top";

  @Test
  void reportArrivesOnWatchAndItsTaskIsTicked() {
    page.navigate(together.appAddress() + "/watch");
    assertThat(page.getByText("Live bridges")).isVisible();
    visitorReports("Handrail is broken at the top", "23 November 2026");

    // The trace shows up by itself; nothing was loaded again.
    Locator arrived = link(TITLE);
    assertThat(arrived).isVisible();
    arrived.click();

    assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName(TITLE)))
        .isVisible();
    button("Due").click();
    Locator way =
        page.getByRole(AriaRole.LIST, new Page.GetByRoleOptions().setName("The way of Due"));
    assertThat(way.getByRole(AriaRole.LISTITEM))
        .hasText(
            new String[] {
              "seen on in the report \"23 November 2026\"",
              "read as a day written “d MMMM uuuu” in English 2026-11-23",
              "moved 7 days later 2026-11-30",
              "at 17:00 in Lisbon 2026-11-30T17:00:00Z",
              "stored by Grounds Board 2026-11-30T17:00:00Z"
            });
    button("Made the task at Grounds Board").click();
    assertThat(page.getByText("Authorization: ••••••••")).isVisible();
    assertThat(page.locator("pre", new Page.LocatorOptions().setHasText("answered 201")))
        .isVisible();

    Page board = context.waitForPage(() -> link("Open task").click());
    Locator task = board.locator("article").filter(new Locator.FilterOptions().setHasText(TITLE));
    assertThat(task).containsText("2026-11-30T17:00:00Z");
    assertThat(task).containsText("Paths crew");
    task.getByText("Tick off").click();
    assertThat(board.locator("article.done").filter(new Locator.FilterOptions().setHasText(TITLE)))
        .isVisible();
  }

  @Test
  void keyboardAloneFindsAFailureAndSendsItAgain() {
    visitorReports("Wasps under the bench", "last week");
    page.navigate(together.appAddress() + "/watch");
    assertThat(link("See the incident").first()).isVisible();
    page.keyboard().press("/");
    page.keyboard().type("wasps under the bench");
    page.keyboard().press("Enter");
    Locator found = link("Moss garden bridge: Wasps under the bench");
    assertThat(found).hasCount(1);
    tabTo("Moss garden bridge: Wasps under the bench");
    page.keyboard().press("Enter");

    assertThat(
            page.getByRole(AriaRole.STATUS)
                .filter(new Locator.FilterOptions().setHasText("“last week” is no day")))
        .isVisible();
    tabTo("Send again…");
    String before = page.url();
    page.keyboard().press("Enter");
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("1 would fail");
    assertThat(button("Send 1 event again")).isFocused();
    page.keyboard().press("Enter");
    page.waitForURL(url -> !url.equals(before));
    assertThat(page.getByText("Sent again by a person")).isVisible();
    assertThat(page.getByText("Could not be decided: mapping error")).isVisible();
  }

  /** Others removed the task; who finds that says by keyboard that it is to be made anew. */
  @Test
  void removedTaskIsMadeAnewByKeyboardAndAnotherIsLeft() {
    String number = together.report("Rail was painted", "6");
    together.awaitVerdict(number, "CREATE");
    together.removeTaskOf(number);
    together.edit(number, "9");
    together.awaitVerdict(number, "FAILED");
    openNewest(number);
    Locator said = page.getByRole(AriaRole.STATUS);
    assertThat(said.first()).containsText("others removed it. Make it anew, or leave it so.");
    assertThat(link("Open task")).hasCount(0);
    assertThat(page.getByText("changing the task: the task is not there")).isVisible();
    tabTo("Make the task anew");
    String before = page.url();
    page.keyboard().press("Enter");
    page.waitForURL(url -> !url.equals(before));
    assertThat(page.getByText("Made the task at Grounds Board")).isVisible();
    org.assertj.core.api.Assertions.assertThat(together.tasksOf(number)).hasSize(1);

    together.removeTaskOf(number);
    together.edit(number, "2");
    together.awaitNewest(number, "FAILED");
    openNewest(number);
    button("Leave it removed").click();
    assertThat(page.getByText("Its task is left removed")).isVisible();
    together.edit(number, "6");
    together.awaitNewest(number, "UNCHANGED");
    org.assertj.core.api.Assertions.assertThat(together.tasksOf(number)).isEmpty();
  }

  /** Two people tell of one thing; who sees both side by side says so with a key each. */
  @Test
  void possibleDuplicatesAreAnsweredByKeyboard() {
    String first = reported("Railing of the terrace is cracked");
    String second = reported("Railing of the terrace is crackked");
    String other = reported("Railing of the terraces is cracked");
    page.navigate(together.appAddress() + "/watch");
    link("See them side by side").click();
    Locator list =
        page.getByRole(AriaRole.LIST, new Page.GetByRoleOptions().setName("Possible duplicates"));
    // It may stand there twice: the third is asked about with the one that could be read first.
    assertThat(list.getByText("Palm walk: Railing of the terrace is crackked").first()).isVisible();
    Locator third = list.getByText("Palm walk: Railing of the terraces is cracked");
    assertThat(third.first()).isVisible();
    check(page, "/pairs");

    chosen("Palm walk: Railing of the terraces is cracked");
    page.keyboard().press("d");
    // One answer is given after the other.
    assertThat(third).hasCount(0);
    chosen("Palm walk: Railing of the terrace is crackked");
    assertThat(page.getByText("One character of the title differs").first()).isVisible();
    page.keyboard().press("s");
    assertThat(list.getByText("Palm walk: Railing of the terrace is crackked")).hasCount(0);
    together.awaitNoTaskOf(second);
    org.assertj.core.api.Assertions.assertThat(together.tasksOf(other)).hasSize(1);

    String task = together.tasksOf(first).getFirst().path("id").asText();
    page.getByLabel("Find a pair by the id of its record or task").fill(second);
    page.keyboard().press("Enter");
    assertThat(page.locator("article")).containsText(task);
    check(page, "a pair");
  }

  private String reported(String problem) {
    String number = together.report(problem, "6");
    together.awaitVerdict(number, "CREATE");
    return number;
  }

  /** Goes with Tab to the list of possible duplicates, and with the arrow to one of them. */
  private void chosen(String title) {
    int inList = 0;
    for (int i = 0; i < 200; i++) {
      Object focused =
          page.evaluate(
              "document.activeElement.getAttribute('aria-current') === 'true'"
                  + " ? document.activeElement.querySelector('.title').textContent.trim() : ''");
      if (title.equals(focused)) {
        return;
      }
      if ("".equals(focused)) {
        page.keyboard().press("Tab");
      } else {
        // What is found while one looks stands above the one that is looked at.
        page.keyboard().press(inList++ % 10 == 0 ? "Home" : "ArrowDown");
      }
    }
    throw new AssertionError("the keyboard does not reach “" + title + "”");
  }

  /** The crews work on their board and the works department in its ledger, on the same tasks. */
  @Test
  void bothSidesFollowEachOtherAndWhatIsRightIsSaidByKeyboard() {
    Page board = context.newPage();
    Page ledger = context.newPage();
    List<String> titles = List.of("Mend the sluice", "Paint the shed", "Clear the culvert");
    titles.forEach(title -> together.crewWants(title));
    titles.forEach(title -> seen(ledger, together.address("works-ledger"), jobOf(ledger, title)));

    jobOf(ledger, titles.getFirst()).getByLabel("Status").selectOption("done");
    press(jobOf(ledger, titles.getFirst()), "Set");
    together.askAll();
    String works = together.boardAddress() + "/boards/works";
    Locator finished = board.locator("article.done");
    seen(board, works, finished.filter(new Locator.FilterOptions().setHasText("Mend the sluice")));
    taskOf(board, titles.get(1)).getByLabel("Lane").selectOption("finished");
    press(taskOf(board, titles.get(1)), "Put there");
    seen(
        ledger,
        together.address("works-ledger"),
        jobOf(ledger, titles.get(1))
            .locator("option[selected]")
            .filter(new Locator.FilterOptions().setHasText("done")));

    for (String title : titles) {
      jobOf(ledger, title).getByLabel("Title").fill(title + " first");
      press(jobOf(ledger, title), "Call it so");
      taskOf(board, title).getByLabel("Title").fill("First " + title);
      press(taskOf(board, title), "Call it so");
    }
    page.navigate(together.appAddress() + "/watch");
    assertThat(page.getByText("Both sides disagree in 3 fields")).isVisible();
    link("Say what is right").click();
    assertThat(page.getByText("Title: what is right?")).isVisible();
    checkAround(page, "/pairs, both sides disagree");
    chosen("First Mend the sluice");
    page.keyboard().press("l");
    chosen("First Paint the shed");
    page.keyboard().press("r");
    chosen("First Clear the culvert");
    page.keyboard().press("t");
    page.keyboard().type("Clear the culvert by Friday");
    page.keyboard().press("Control+Enter");
    assertThat(page.getByText("Both sides agree wherever")).isVisible();
    seen(ledger, together.address("works-ledger"), jobOf(ledger, "First Mend the sluice"));
    seen(board, works, taskOf(board, "Paint the shed first"));
    seen(board, works, taskOf(board, "Clear the culvert by Friday"));
    seen(ledger, together.address("works-ledger"), jobOf(ledger, "Clear the culvert by Friday"));
    whatBecameOf(taskOf(board, "Clear the culvert by Friday").getAttribute("id"));
    page.navigate(together.appAddress() + "/bridges/works-both-ways");
    assertThat(page.getByText("Kept alike")).isVisible();
    checkAround(page, "a bridge that goes both ways");
  }

  /** The history of a pair, found by the id of its task. */
  private void whatBecameOf(String task) {
    page.navigate(together.appAddress() + "/pairs");
    page.getByLabel("Find a pair by the id of its record or task").fill(task);
    page.keyboard().press("Enter");
    button("What became of them").focus();
    page.keyboard().press("Enter");
    Locator history = page.getByLabel("What became of them");
    assertThat(history.getByText("made at Works Ledger")).isVisible();
    assertThat(history.getByText("a person is asked: it was changed on both sides")).isVisible();
    assertThat(history.getByText("Clear the culvert by Friday").first()).isVisible();
    checkAround(page, "what became of a pair");
  }

  /** The board tells nothing of what a crew did; a check of both lists finds it. */
  @Test
  void whatNobodyToldOfIsFoundByAFullCheckAndPutRightByKeyboard() {
    Page board = context.newPage();
    Page ledger = context.newPage();
    String title = "Tar the jetty";
    together.crewWants(title);
    seen(ledger, together.address("works-ledger"), jobOf(ledger, title));
    seen(board, together.boardAddress() + "/boards/works", taskOf(board, title));
    together.fault(together.boardAddress(), "hook-lost", "", "", 1, 0);
    taskOf(board, title).getByLabel("Lane").selectOption("finished");
    press(taskOf(board, title), "Put there");

    page.navigate(together.appAddress() + "/bridges/works-both-ways");
    link("Full check").focus();
    page.keyboard().press("Enter");
    button("Check both sides now").focus();
    page.keyboard().press("Enter");
    Locator box = page.getByLabel("Choose " + title);
    assertThat(box).isVisible();
    assertThat(page.getByText("Works Ledger: Status “Done”")).isVisible();
    checkAround(page, "a full check");
    box.focus();
    page.keyboard().press("Space");
    button("Put 1 right…").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("1 change carried across")).isVisible();
    page.keyboard().press("Enter");
    assertThat(link("put right")).isVisible();
    seen(
        ledger,
        together.address("works-ledger"),
        jobOf(ledger, title)
            .locator("option[selected]")
            .filter(new Locator.FilterOptions().setHasText("done")));
  }

  /** Loads a page of a stand-in until something is there, as it does not tell of changes. */
  private static void seen(Page at, String address, Locator what) {
    await()
        .atMost(Duration.ofSeconds(30))
        .pollInterval(Duration.ofMillis(100))
        .until(
            () -> {
              at.navigate(address);
              return what.count() > 0;
            });
  }

  private static Locator jobOf(Page ledger, String title) {
    return titled(ledger, "tr", title);
  }

  private static Locator taskOf(Page board, String title) {
    return titled(board, "article", title);
  }

  private static Locator titled(Page at, String element, String title) {
    return at.locator(element)
        .filter(
            new Locator.FilterOptions()
                .setHas(at.locator("input[name=title][value='" + title + "']")));
  }

  private static void press(Locator in, String button) {
    in.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(button).setExact(true))
        .click();
  }

  private void openNewest(String number) {
    String id = together.tracesOf(number).getFirst().path("id").asText();
    page.navigate(together.appAddress() + "/traces/" + id);
  }

  @Test
  void tracesAreFilteredAndTheFilterStaysInTheAddress() {
    visitorReports("Sign has fallen over", "22 November 2026");
    visitorReports("Light does not work", "tomorrow");
    page.navigate(together.appAddress() + "/traces");
    assertThat(link("Moss garden bridge: Sign has fallen over")).isVisible();
    assertThat(link("Moss garden bridge: Light does not work")).isVisible();

    page.getByText("Every verdict").first().click();
    page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("failed").setExact(true))
        .click();
    assertThat(link("Moss garden bridge: Sign has fallen over")).hasCount(0);
    assertThat(link("Moss garden bridge: Light does not work")).isVisible();
    assertThat(page).hasURL(java.util.regex.Pattern.compile("verdict=failed"));

    page.reload();
    assertThat(link("Moss garden bridge: Light does not work")).isVisible();
    page.getByLabel("Any value seen").fill("no such thing anywhere");
    button("Find").last().click();
    assertThat(page.getByText("No trace fits.")).isVisible();
  }

  @Test
  void bridgeReadsAsSentences() {
    page.navigate(together.appAddress() + "/bridges");
    link("Hazard report").click();
    assertThat(page.locator("main"))
        .containsText(
            "seen on, read as a day written “d MMMM uuuu” in English, moved 7 days later");
    assertThat(page.locator("main")).containsText("always Paths crew");
  }

  @Test
  void placesHaveNoSeriousAccessibilityFindingAndNoSidewaysScrolling() {
    visitorReports("Branch hanging over the path", "23 November 2026");
    for (String place : List.of("/watch", "/traces", "/bridges", "/bridges/hazard-to-grounds")) {
      page.navigate(together.appAddress() + place);
      assertThat(page.getByText("Reading…")).hasCount(0);
      checkAround(page, place);
    }
    page.navigate(together.appAddress() + "/traces");
    page.locator("td.title a").first().click();
    assertThat(page.getByText("What happened")).isVisible();
    checkAround(page, "one trace");
  }
}
