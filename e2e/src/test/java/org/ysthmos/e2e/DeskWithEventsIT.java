package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.Test;

/** The desk with its events: found, added, pinned, sent once for real, held back and let go. */
class DeskWithEventsIT extends AtTheDesk {

  private Locator dialog() {
    return page.getByRole(AriaRole.DIALOG);
  }

  private static Locator act(Locator in, String name) {
    return in.getByRole(
        AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(name).setExact(true));
  }

  private long tasksCalled(String title) {
    return together.tasks().stream()
        .filter(task -> task.path("title").asText().equals(title))
        .count();
  }

  @Test
  void nextEventComesIntoViewAndNoEditIsLost() {
    openDesk(page);
    open(page, "lane");
    page.getByLabel("The value").selectOption("under-way");
    button("Wait for the next").click();
    visitorReports("Bench has a splinter", "25 November 2026");
    assertThat(page.locator("#rule-title .now")).containsText("Bench has a splinter");
    assertThat(page.locator("#rule-lane .now")).hasText("Under way");
    assertThat(button("Wait for the next")).isVisible();
  }

  @Test
  void eventsArePastedMadeByHandSteppedThroughAndRemoved() {
    openDesk(page);
    String record = page.locator(".sample .mono").first().textContent();
    button("Add…").click();
    dialog()
        .getByRole(AriaRole.TEXTBOX)
        .fill(
            """
            {"type":"submission.created","submission":"%s"}
            {"specversion":"1.0","id":"p-2","source":"/form","type":"submission.created",\
            "data":{"type":"submission.created","submission":"vd-none"}}
            """
                .formatted(record));
    act(dialog(), "Add").click();
    assertThat(dialog()).hasCount(0);
    Locator own = page.locator(".sample.own", new Page.LocatorOptions().setHasText("added"));
    assertThat(own).hasCount(2);
    assertThat(page.locator("#rule-title .now")).containsText("Step wobbles");

    page.locator(".sample.on").press("ArrowRight");
    assertThat(page.locator(".sample.on .mono")).hasText("vd-none");
    assertThat(page.locator(".leaving")).containsText("vd-none");
    button("Remove").first().click();
    assertThat(own).hasCount(1);

    button("Add…").click();
    dialog().getByText("made by hand").click();
    dialog().getByLabel("submission").fill(record);
    act(dialog(), "Add").click();
    assertThat(own).hasCount(2);
  }

  @Test
  void bodyThatIsNoEventSaysWhereAndIsNotLost() {
    openDesk(page);
    button("Add…").click();
    Locator text = dialog().getByRole(AriaRole.TEXTBOX);
    text.fill("{\"submission\":\"vd-1\"}\n{\"submission\"");
    act(dialog(), "Add").click();
    assertThat(dialog().getByRole(AriaRole.ALERT)).containsText("Line 2 cannot be read");
    assertThat(text).hasValue("{\"submission\":\"vd-1\"}\n{\"submission\"");
    refusedByTheServer(422);
  }

  @Test
  void offeredPairIsTakenOnlyWhenAPersonSaysSo() {
    begin("Offered", "What is needed alone");
    Locator offer = page.locator(".pair", new Page.LocatorOptions().setHasText("Due"));
    assertThat(offer).containsText("seen on");
    assertThat(rule(page, "due")).hasCount(0);
    offer.getByText("Take it").click();
    assertThat(page.locator("#rule-due .now")).hasText("23 Nov 2026, 17:00");
    assertThat(offer).hasCount(0);
    button("Undo").click();
    assertThat(rule(page, "due")).hasCount(0);
  }

  @Test
  void tableIsFilledWithoutLeavingTheDesk() {
    begin("By table", "A task given by a table");
    Locator unknown = page.getByText("Not in the table");
    assertThat(unknown).containsText("Moss garden bridge");
    button("Add to the table").click();
    act(dialog(), "Add “Moss garden bridge”").click();
    dialog().getByLabel("crew of row 4").fill("bu-12");
    assertThat(dialog()).containsText("Tree crew");
    act(dialog(), "Keep the rows").click();
    assertThat(dialog()).hasCount(0);
    assertThat(rule(page, "assignees").locator(".now")).hasText("Tree crew");
    assertThat(unknown).hasCount(0);
  }

  @Test
  void pinnedExampleThatNoLongerHoldsStandsInTheWay() {
    openDesk(page);
    button("Pin this result").click();
    page.getByLabel("What the example is about").fill("The wobbling step");
    page.getByLabel("What the example is about").press("Enter");
    assertThat(page.getByText("Pinned.")).isVisible();
    open(page, "lane");
    page.getByLabel("The value").selectOption("finished");
    kept(page);
    button("Go live…").click();
    Locator example = dialog().locator("li", new Locator.LocatorOptions().setHasText("wobbling"));
    assertThat(example).containsText("does not hold");
    assertThat(example).containsText("finished");
    assertThat(act(dialog(), "Go live")).isDisabled();
    assertThat(dialog()).containsText("It would have come to at most");
    act(example, "Unpin").click();
    assertThat(example).hasCount(0);
    act(dialog(), "Not yet").click();
  }

  @Test
  void oneEventIsSentForRealAndItsTaskTakenBack() {
    begin("Tried", "What is needed alone");
    open(page, "title");
    page.getByLabel("The text; fields stand in braces").fill("Try: {report/answers/problem}");
    assertThat(page.locator("#rule-title .now")).hasText("Try: Step wobbles");
    button("Try it for real").click();
    assertThat(dialog()).containsText("Try: Step wobbles");
    act(dialog(), "Send this one event").click();
    assertThat(dialog()).containsText("Grounds Board holds the task");
    assertThat(tasksCalled("Try: Step wobbles")).isEqualTo(1);
    act(dialog(), "Take the task back").click();
    assertThat(dialog()).containsText("The task is taken back");
    page.waitForCondition(() -> tasksCalled("Try: Step wobbles") == 0);

    link("Its trace").click();
    assertThat(page.getByRole(AriaRole.STATUS).first()).containsText("Its task was taken back");
    link("Tried").click();
    assertThat(rule(page, "title")).isVisible();
  }

  @Test
  void heldBridgeKeepsWhatArrivesAndReleasesIt() {
    page.navigate(together.appAddress() + "/bridges/hazard-to-grounds");
    button("Hold").click();
    page.keyboard().type("The board moves house");
    page.keyboard().press("Enter");
    assertThat(page.getByText("held, version")).isVisible();
    visitorReports("Rope is loose", "25 November 2026");
    page.navigate(together.appAddress() + "/watch");
    assertThat(page.getByText("is held, 1 event wait")).isVisible();
    assertThat(page.getByText("The board moves house")).isVisible();
    assertThat(madeATask("Moss garden bridge: Rope is loose")).isFalse();

    openDesk(page);
    button("Release…").click();
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("would be created");
    check(page, "releasing a bridge");
    button("Release it").click();
    assertThat(button("Hold…")).isVisible();
    page.waitForCondition(() -> madeATask("Moss garden bridge: Rope is loose"));
  }

  @Test
  void earlierVersionIsComparedAndBroughtBack() {
    begin("Twice", "What is needed alone");
    open(page, "title");
    page.getByLabel("The text; fields stand in braces").fill("First");
    kept(page);
    goLive();
    link("Open the desk").click();
    open(page, "title");
    page.getByLabel("The text; fields stand in braces").fill("Second");
    kept(page);
    goLive();
    link("Open the desk").click();
    page.getByText("as a document", new Page.GetByTextOptions()).first().click();
    page.getByLabel("An earlier version").selectOption("1");
    Locator earlier = page.locator("section.version");
    assertThat(earlier).containsText("First");
    assertThat(earlier).containsText("Second");
    act(earlier, "Bring it back").click();
    assertThat(page.locator("#rule-title .now")).hasText("First");
    button("Undo").click();
    assertThat(page.locator("#rule-title .now")).hasText("Second");
  }

  private void goLive() {
    button("Go live…").click();
    act(dialog(), "Go live").click();
    assertThat(page.getByText("live, version")).isVisible();
  }

  @Test
  void dialogsHaveNoSeriousAccessibilityFinding() {
    page.navigate(together.appAddress() + "/bridges");
    button("New bridge").click();
    assertThat(page.getByText("A task for each record")).isVisible();
    checkAround(page, "a new bridge");
    openDesk(page);
    for (String way : new String[] {"Add…", "Try it for real…", "Hold…"}) {
      button(way).click();
      assertThat(dialog()).isVisible();
      checkAround(page, way);
      page.keyboard().press("Escape");
      assertThat(dialog()).hasCount(0);
    }
    page.locator(".lookups .head").first().click();
    checkAround(page, "a lookup open");
  }
}
