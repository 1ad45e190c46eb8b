package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.SelectOption;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Tables and calendars as people look after them, and parts that go from one bridge to another. */
class TablesPersonIT extends AtTheDesk {

  private static final String HOLIDAYS =
      "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Harbour day\r\n"
          + "DTSTART;VALUE=DATE:20200803\r\nRRULE:FREQ=YEARLY\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";

  private Locator cell(String column, int row) {
    return page.getByLabel(column + " of row " + row, new Page.GetByLabelOptions().setExact(true));
  }

  /** Pastes as a browser does: what is pasted is in the event. */
  private static void paste(Locator into, String text) {
    into.evaluate(
        "(cell, text) => { const data = new DataTransfer(); data.setData('text/plain', text);"
            + " cell.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true,"
            + " cancelable: true })) }",
        text);
  }

  @Test
  void tableIsMadeFilledByPastingAndGoneOnWithByKeyboard() {
    page.navigate(together.appAddress() + "/tables");
    button("New table…").click();
    page.getByLabel("What people call it").fill("Houses and crews");
    assertThat(page.getByText("houses-and-crews")).isVisible();
    page.keyboard().press("Enter");
    assertThat(
            page.getByRole(
                AriaRole.HEADING, new Page.GetByRoleOptions().setName("Houses and crews")))
        .isVisible();

    page.getByLabel("Name of column 1").fill("house");
    page.getByLabel("Name of column 2").fill("crew");
    page.keyboard().press("Tab");
    page.getByLabel("What crew holds").selectOption("person");
    button("Add a row").click();
    paste(cell("house", 1), "Palm house\tbu-14\nFern house\tbu-12\n\"Moss, old\"\tbu-11\n");
    assertThat(cell("house", 3)).hasValue("Moss, old");
    cell("crew", 3).press("Enter");
    // Below the last row another one begins.
    page.keyboard().type("Rose house");
    page.keyboard().press("Tab");
    page.keyboard().type("bu-14");
    page.keyboard().press("ArrowUp");
    assertThat(cell("crew", 3)).isFocused();
    button("Keep").click();
    assertThat(page.getByRole(AriaRole.STATUS)).containsText("Kept");
    assertThat(page.getByLabel("Who uses it, and what became of it")).containsText("4 rows added");

    cell("house", 4).fill("Palm house");
    button("Keep").click();
    assertThat(page.getByRole(AriaRole.ALERT)).containsText("stands in line 2 already");
    refusedByTheServer(422);
    // What was typed is still there.
    assertThat(cell("house", 4)).hasValue("Palm house");
    button("Remove row 4").click();
    button("Keep").click();
    assertThat(page.getByLabel("Who uses it, and what became of it")).containsText("1 row removed");
    button("Bring it back").first().click();
    assertThat(cell("house", 4)).hasValue("Rose house");
  }

  @Test
  void calendarTakesHolidaysFromAFileAndADayByKeyboard() {
    page.navigate(together.appAddress() + "/calendars/garden");
    assertThat(page.getByText("Climate ticket")).isVisible();
    page.getByLabel("An iCalendar file")
        .setInputFiles(
            new FilePayload(
                "days.ics", "text/calendar", HOLIDAYS.getBytes(StandardCharsets.UTF_8)));
    assertThat(page.getByRole(AriaRole.STATUS)).containsText("6 of 6 days");
    button("The year after").focus();
    page.keyboard().press("Enter");
    Locator day = page.getByLabel(Pattern.compile("^\\d{4}-08-03, Harbour day"));
    assertThat(day).hasAttribute("aria-pressed", "true");
    day.focus();
    page.keyboard().press("Space");
    assertThat(page.getByLabel(Pattern.compile("^\\d{4}-08-03, ")))
        .hasAttribute("aria-pressed", "false");
    button("Keep").click();
    assertThat(page.getByRole(AriaRole.STATUS)).containsText("Kept");
    assertThat(page.getByLabel("Who uses it, and what became of it"))
        .containsText("5 holidays added");
  }

  @Test
  void stepOfOneBridgeIsPutIntoAnother() {
    page.navigate(together.appAddress() + "/bridges/climate-job/desk");
    page.getByLabel(Pattern.compile("^Due: ")).click();
    page.getByLabel(Pattern.compile("^Take the steps moved 1 working day later")).click();
    page.navigate(together.appAddress() + "/bridges/pledge-follow-up/desk");
    Locator atHand = page.locator(".at-hand");
    assertThat(atHand).containsText("of Climate ticket");
    atHand.locator("select").selectOption(new SelectOption().setLabel("Title"));
    atHand.getByText("Put it in").click();
    // What does not fit there is named at its rule.
    assertThat(rule(page, "title")).containsText("takes a day but gets a text");
    kept(page);
    button("Undo").click();
    assertThat(rule(page, "title").locator(".problem")).hasCount(0);
    button("Let it go").click();
    assertThat(atHand).hasCount(0);
    kept(page);
  }

  /** A lane is called otherwise over there: it is told, and chosen by its new name at the desk. */
  @Test
  void laneIsChosenByTheNameItHasAfterItWasRenamedOverThere() {
    renameLane("Under way", "In hand");
    openDesk(page);
    page.navigate(together.appAddress() + "/systems");
    namesAreRead();
    page.navigate(together.appAddress() + "/bridges/hazard-to-grounds/desk");
    open(page, "lane");
    page.getByLabel("The value").selectOption(new SelectOption().setLabel("In hand"));
    assertThat(page.locator(".leaving")).containsText("In hand");
    kept(page);
    openDesk(page);

    renameLane("Reported", "Just come in");
    page.navigate(together.appAddress() + "/systems");
    namesAreRead();
    Locator told = page.locator("p.name");
    assertThat(told).containsText("Reported is called Just come in now");
    assertThat(told).containsText("rule Lane of Hazard report");
    renameLane("Just come in", "Reported");
  }

  /** Looks at the board, and waits until its names were read: the desk shows those of then. */
  private void namesAreRead() {
    page.waitForResponse(
        "**/api/systems/grounds-board/look",
        () -> page.getByLabel("Look at Grounds Board now").click());
  }

  /** Somebody calls a lane otherwise, on the board's own page. */
  private void renameLane(String now, String then) {
    Page board = context.newPage();
    board.navigate(together.boardAddress() + "/boards/paths-and-trees");
    Locator lane =
        board.locator("section").filter(new Locator.FilterOptions().setHas(heading(board, now)));
    lane.getByText("Call it otherwise").click();
    lane.getByLabel("New name of " + now).fill(then);
    board.keyboard().press("Enter");
    // Tasks that stand there name the lane as well, in choices that are not open.
    assertThat(heading(board, then).first()).isVisible();
    board.close();
  }

  private static Locator heading(Page at, String text) {
    return at.locator("h2", new Page.LocatorOptions().setHasText(text));
  }

  @Test
  void noSeriousAccessibilityFindingAndNoSidewaysScrolling() {
    for (String place : List.of("/tables", "/tables/crews", "/calendars/garden")) {
      page.navigate(together.appAddress() + place);
      assertThat(page.locator("main table").first()).isVisible();
      checkAround(page, place);
    }
    page.navigate(together.appAddress() + "/bridges/climate-job/desk");
    page.getByLabel("Then number-back").scrollIntoViewIfNeeded();
    checkAround(page, "what comes then at the desk");
  }
}
