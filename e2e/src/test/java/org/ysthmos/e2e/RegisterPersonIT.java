package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import org.junit.jupiter.api.Test;

/** What one does who looks after many bridges, and who is asked about them. */
class RegisterPersonIT extends InBrowser {

  /** What do we have, and whose is it: said, filtered, grouped and kept as a view by keyboard. */
  @Test
  void registerSaysWhoseABridgeIsAndKeepsAView() {
    page.navigate(together.appAddress() + "/bridges");
    button("Whose Hazard report is").focus();
    page.keyboard().press("Enter");
    page.getByLabel("Owner, who is asked about it").fill("Ines Duarte");
    page.getByLabel("Department").last().fill("Grounds");
    page.keyboard().press("Enter");
    assertThat(button("Whose Hazard report is")).hasText("Ines Duarte");

    page.getByLabel("Find in the register").fill("hazard duarte");
    assertThat(page.locator("tbody tr")).hasCount(1);
    page.getByLabel("Find in the register").fill("");
    page.getByLabel("Group by").selectOption("By department");
    assertThat(page.locator("tr.group").first()).containsText("Grounds");
    button("Failed").focus();
    page.keyboard().press("Enter");
    page.waitForURL(url -> url.endsWith("?sort=-failed&group=department"));
    checkAround(page, "the register, grouped");
    button("Keep this view…").focus();
    page.keyboard().press("Enter");
    page.keyboard().type("Most failures");
    page.keyboard().press("Enter");
    assertThat(page.getByLabel("View").locator("option[value='Most failures']")).hasCount(1);
    button("Columns…").click();
    page.getByLabel("Department").last().check();
    button("Show").click();
    assertThat(page.getByText("This view, not kept")).hasCount(1);
    assertThat(page.locator("thead")).containsText("Department");

    // The link is the view: whoever opens it sees the same.
    page.navigate(together.appAddress() + "/bridges");
    page.getByLabel("View").selectOption("Most failures");
    page.waitForURL(url -> url.endsWith("?sort=-failed&group=department"));
    assertThat(page.locator("tr.group").first()).containsText("Grounds");
  }

  /** What is known to go wrong is written down once, and stands where it goes wrong. */
  @Test
  void knownTroubleIsWrittenDownAndStandsWhereItFails() {
    page.navigate(together.appAddress() + "/bridges/hazard-to-grounds");
    button("Write a note…").focus();
    page.keyboard().press("Enter");
    page.getByLabel("What it is").selectOption("TROUBLE");
    page.getByLabel("In words").fill("Visitors write “last week” for a day. Ask them back.");
    page.getByLabel("A link, if there is more to read").fill("https://garden.example/wiki/days");
    page.keyboard().press("Enter");
    assertThat(page.getByText("Known trouble:")).isVisible();
    assertThat(link("garden.example/wiki/days")).isVisible();
    button("Add a picture…").focus();
    page.keyboard().press("Enter");
    page.getByLabel("The picture: choose a file, or paste one here")
        .setInputFiles(new FilePayload("mail.png", "image/png", page.screenshot()));
    page.getByLabel("What it shows").fill("A mail without a day");
    page.keyboard().press("Enter");
    Locator picture = page.getByAltText("A mail without a day");
    assertThat(picture).hasJSProperty("complete", true);
    assertThat(picture).not().hasJSProperty("naturalWidth", 0);
    checkAround(page, "a bridge with a note");

    visitorReports("Moss on the steps", "last week");
    page.navigate(together.appAddress() + "/traces?verdict=FAILED");
    link("Moss garden bridge: Moss on the steps").click();
    assertThat(page.getByText("Known trouble of this bridge")).isVisible();
    checkAround(page, "a failed trace with a known trouble");

    page.navigate(together.appAddress() + "/bridges/hazard-to-grounds");
    button("It is over").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("1 note that is over")).isVisible();
    page.getByText("1 note that is over").click();
    assertThat(button("It holds again")).isVisible();
  }

  /** What breaks if a system is left, found from the system, by keyboard. */
  @Test
  void whatHangsOnASystemIsFoundFromIt() {
    page.navigate(together.appAddress() + "/systems");
    link("What hangs on Visitor Desk").focus();
    page.keyboard().press("Enter");
    page.waitForURL(url -> url.endsWith("/hangs-on?kind=system&system=visitor-desk"));
    assertThat(page.getByRole(AriaRole.HEADING).getByText("If we leave Visitor Desk")).isVisible();
    assertThat(page.locator("article"))
        .containsText("something that tells when a report is created or changed");
    checkAround(page, "what hangs on a system");
    page.getByLabel("System").selectOption("Works Ledger");
    assertThat(page.locator("table.uses tbody tr").first()).containsText("Climate ticket");
    page.getByLabel("Kind of thing").selectOption("the person");
    page.getByLabel("What the person is called").fill("Paths crew");
    page.keyboard().press("Enter");
    assertThat(page.locator("table.uses")).containsText("rule Given to");
  }

  /** A field that is called otherwise is followed by the rules that read it, as drafts. */
  @Test
  void aFieldThatIsCalledOtherwiseGivesDrafts() {
    page.navigate(
        together.appAddress()
            + "/hangs-on?kind=system&system=visitor-desk&collection=hazard-reports");
    page.getByLabel("Field").selectOption("/answers/danger");
    assertThat(page.locator("table.uses tbody tr"))
        .hasText("Hazard reportreads only when; Priority");
    page.getByLabel("its key from then on").fill("/answers/risk");
    page.keyboard().press("Enter");
    button("Keep a draft of it").focus();
    checkAround(page, "a field that is called otherwise");
    page.keyboard().press("Enter");
    assertThat(page.getByText("1 draft is kept.")).isVisible();
    page.getByLabel("If it is called otherwise").getByText("Hazard report").click();
    page.waitForURL(url -> url.endsWith("/bridges/hazard-to-grounds/desk"));
    assertThat(page.locator("body")).containsText("/answers/risk");
  }

  /** A test is planned, is due at once, stands on Watch, and is said to have passed. */
  @Test
  void aTestThatIsDueStandsOnWatchUntilItPassed() {
    page.navigate(together.appAddress() + "/bridges/hazard-to-grounds");
    button("Plan a test…").focus();
    page.keyboard().press("Enter");
    page.getByLabel("What is tested").fill("A report without a place");
    page.keyboard().press("Enter");
    assertThat(page.getByText("Never tested so far.")).isVisible();
    page.navigate(together.appAddress() + "/watch");
    assertThat(page.getByText("the test “A report without a place” is due")).isVisible();
    checkAround(page, "Watch with a test that is due");
    link("See the test").focus();
    page.keyboard().press("Enter");
    button("Say how it went…").focus();
    page.keyboard().press("Enter");
    page.getByLabel("yes").check();
    page.getByLabel("What was seen").fill("It fails with its reason");
    button("Keep").click();
    assertThat(page.getByText("version 1: It fails with its reason")).isVisible();
    checkAround(page, "a bridge with a test");
    page.navigate(together.appAddress() + "/watch");
    assertThat(page.getByText("Live bridges")).isVisible();
    assertThat(page.getByText("A report without a place")).hasCount(0);
  }
}
