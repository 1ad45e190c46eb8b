package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** What a specialist does at the desk, with the mouse and with the keyboard alone. */
class DeskPersonIT extends AtTheDesk {

  @Test
  void wholeBridgeIsBuiltWithTheMouseAndMakesItsTask() {
    page.navigate(together.appAddress() + "/bridges");
    button("New bridge").click();
    fromTheVisitorDesk();
    page.getByLabel("It is called").fill("Second look");
    button("Open its desk").click();
    assertThat(page.getByText("draft, not live yet")).isVisible();

    open(page, "title");
    assertThat(rule(page, "title").locator(".problem")).containsText("required");
    button("Pick from arriving").click();
    page.getByTitle("Use what is wrong").click();
    assertThat(page.locator("#rule-title .now")).hasText("Step wobbles");
    add("field", "due");
    page.getByLabel("Where it comes from").selectOption("value");
    page.getByLabel("The field", new Page.GetByLabelOptions().setExact(true))
        .selectOption("report/answers/seenOn");
    add("step", "read day");
    page.getByLabel("pattern").fill("d MMMM uuuu");
    assertThat(rule(page, "due").locator(".after").first()).hasText("2026-11-23");
    assertThat(rule(page, "due").locator(".problem")).containsText("say the time and the zone");
    add("step", "at");
    page.getByLabel("time").fill("09:00");
    page.getByLabel("zone").fill("Europe/Lisbon");
    assertThat(page.locator("#rule-due .now")).hasText("23 Nov 2026, 09:00");

    button("Go live").click();
    Locator dialog = page.getByRole(AriaRole.DIALOG);
    assertThat(dialog).containsText("none would fail");
    dialog.getByText("Go live", new Locator.GetByTextOptions().setExact(true)).click();
    assertThat(page.getByText("live, version 1")).isVisible();
    visitorReports("Gate squeaks", "24 November 2026");
    page.navigate(together.appAddress() + "/traces?bridge=second-look");
    assertThat(link("Gate squeaks")).isVisible();
    page.waitForCondition(() -> madeATask("Gate squeaks"));
  }

  @Test
  void wholeBridgeIsBuiltWithTheKeyboardAlone() {
    page.navigate(together.appAddress() + "/bridges");
    assertThat(link("Hazard report").first()).isVisible();
    tabTo("New bridge…");
    page.keyboard().press("Enter");
    assertThat(page.getByLabel("It is called")).isVisible();
    tabToLabel("When something happens in");
    page.keyboard().type("Vis");
    tabToLabel("make a task in");
    page.keyboard().type("Grounds Board: P");
    tabToLabel("It is called");
    page.keyboard().type("By keys");
    tabTo("Open its desk");
    page.keyboard().press("Enter");
    assertThat(rule(page, "title")).isVisible();

    tabToLabel("Title:");
    page.keyboard().press("Enter");
    tabToLabel("The text; fields stand in braces");
    page.keyboard().type("Look: {report/answers/problem}");
    assertThat(page.locator("#rule-title .now")).hasText("Look: Step wobbles");
    tabToLabel("Add a step");
    page.keyboard().type("case");
    page.keyboard().press("Enter");
    assertThat(rule(page, "title").locator(".say")).hasCount(1);
    assertThat(page.locator("#rule-title .now")).hasText("LOOK: STEP WOBBLES");
    kept(page);
    tabTo("Go live…");
    page.keyboard().press("Enter");
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("Put the bridge to work");
    tabTo("Go live");
    page.keyboard().press("Enter");
    assertThat(page.getByText("live, version 1")).isVisible();
  }

  @Test
  void draftSurvivesAReloadAndCanBeUndone() {
    openDesk(page);
    open(page, "lane");
    page.getByLabel("The value").selectOption("under-way");
    assertThat(page.locator("#rule-lane .now")).hasText("Under way");
    kept(page);
    page.reload();
    assertThat(page.locator("#rule-lane .now")).hasText("Under way");
    assertThat(page.getByText("draft over version")).isVisible();

    open(page, "lane");
    page.getByLabel("The value").selectOption("finished");
    assertThat(page.locator("#rule-lane .now")).hasText("Finished");
    button("Undo").click();
    assertThat(page.locator("#rule-lane .now")).hasText("Under way");
    button("Redo").click();
    assertThat(page.locator("#rule-lane .now")).hasText("Finished");
    button("Give up the draft").click();
    assertThat(page.locator("#rule-lane .now")).hasText("Reported");
  }

  @Test
  void wrongRuleIsCaughtBeforeItGoesLive() {
    openDesk(page);
    open(page, "due");
    rule(page, "due")
        .getByText("Remove", new Locator.GetByTextOptions().setExact(true))
        .last()
        .click();
    assertThat(rule(page, "due").locator(".problem")).containsText("say the time and the zone");
    assertThat(rule(page, "due").locator(".after").nth(1)).hasText("2026-11-30");
    button("Go live").click();
    Locator dialog = page.getByRole(AriaRole.DIALOG);
    assertThat(dialog).containsText("It cannot go live yet");
    assertThat(dialog.getByText("Go live", new Locator.GetByTextOptions().setExact(true)))
        .isDisabled();
    dialog.getByText("Not yet").click();
    button("Undo").click();
    assertThat(rule(page, "due").locator(".problem")).hasCount(0);
  }

  @Test
  void twoPeopleAtOneDraftGetAClearConflict() {
    openDesk(page);
    try (BrowserContext other = newWindow()) {
      Page theirs = other.newPage();
      theirs.navigate(together.appAddress() + DESK);
      assertThat(rule(theirs, "lane")).isVisible();
      open(page, "lane");
      page.getByLabel("The value").selectOption("under-way");
      kept(page);
      open(theirs, "lane");
      theirs.getByLabel("The value").selectOption("finished");
      assertThat(theirs.locator(".state")).hasText("Changed by someone else");
      assertThat(theirs.getByRole(AriaRole.ALERT)).containsText("Your change is not kept");
      theirs.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Take theirs")).click();
      assertThat(theirs.locator("#rule-lane .now")).hasText("Under way");
    }
  }

  @Test
  void proofSheetShowsWhatDiffersAndLeadsToTheRule() {
    visitorReports("Lamp is dark", "yesterday");
    openDesk(page);
    open(page, "lane");
    page.getByLabel("The value").selectOption("under-way");
    button("Proof sheet").click();
    Locator sheet = page.locator(".sheet");
    assertThat(sheet.locator("td.differs").first()).hasText("Under way");
    page.getByLabel("Only")
        .selectOption(
            page.locator(
                    "option", new Page.LocatorOptions().setHasText("failed: Due: “…” is no day"))
                .getAttribute("value"));
    assertThat(sheet.locator("td.failed").first()).containsText("yesterday");
    sheet.locator("td.failed .cell").first().click();
    assertThat(rule(page, "due").locator(".body")).isVisible();
  }

  /** “Planned” gets its own lane, and what that changes is seen before anything goes live. */
  @Test
  void statusesAreMappedAndPlayedThroughByKeyboard() {
    page.navigate(together.appAddress() + "/bridges/works-both-ways/desk");
    tabTo("Table of status");
    page.keyboard().press("Enter");
    Locator table =
        page.getByRole(AriaRole.GRID, new Page.GetByRoleOptions().setName("Lane and Status"));
    assertThat(table.getByRole(AriaRole.GRIDCELL)).hasCount(18);
    assertThat(page.getByText("between “Open” and “Planned” in Works Ledger")).isVisible();
    page.keyboard().press("Tab");
    for (String key : List.of("ArrowDown", "ArrowRight", "l")) {
      page.keyboard().press(key);
    }
    assertThat(table.locator("[aria-selected=true]")).hasText("←");
    assertThat(page.getByText("between “Open” and “Planned” in Works Ledger")).hasCount(0);
    assertThat(page.getByText("“Planned” in Works Ledger becomes “Doing” in Grounds Board.").last())
        .isVisible();

    tabTo("Planned");
    page.keyboard().press("Enter");
    Locator played = page.getByLabel("What both sides become").getByRole(AriaRole.ROW).last();
    assertThat(played).containsText("Grounds Board is set to “Doing”");
    checkAround(page, "a table of statuses");
    kept(page);
    tabTo("The document");
    page.keyboard().press("Enter");
    assertThat(page.getByRole(AriaRole.TEXTBOX).first())
        .hasValue(Pattern.compile("planned: doing"));
    button("Give up the draft").click();
    assertThat(page.getByText("as live, version 1")).isVisible();
  }

  @Test
  void deskHasNoSeriousAccessibilityFindingAndNoSidewaysScrolling() {
    openDesk(page);
    open(page, "due");
    rule(page, "due").locator(".say").first().click();
    checkAround(page, "the desk with a rule open");
    page.getByText("Proof sheet").first().click();
    assertThat(page.locator(".sheet td").first()).isVisible();
    checkAround(page, "the desk with the proof sheet");
    open(page, "lane");
    page.getByLabel("The value").selectOption("under-way");
    page.getByText("Go live…").click();
    assertThat(page.getByText("would fail")).isVisible();
    checkAround(page, "going live");
  }
}
