package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.Map;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** Somebody makes a copy of a bridge, changes the original later, and has the copy follow. */
class CopiesPersonIT extends InBrowser {

  private static final String ORIGINAL = "hazard-to-grounds";

  private static JsonNode bridge(String id) {
    return together.json("GET", together.appAddress() + "/api/bridges/" + id, "", Map.of());
  }

  /** By mouse: the copy is made, given a rule of its own, and put to work. */
  private void makeCopy() {
    page.navigate(together.appAddress() + "/bridges");
    button("New bridge…").click();
    page.getByLabel("as a copy of another").check();
    page.locator("dialog select").selectOption(ORIGINAL);
    page.getByLabel("It is called").fill("Grave hazards");
    button("Open its desk").click();
    assertThat(page.getByText("shortened to 120 characters").first()).isVisible();
    // Without its first test the condition is its own.
    button("Remove").nth(1).click();
    assertThat(page.getByText("Kept", new Page.GetByTextOptions().setExact(true))).isVisible();
    assertThat(button("Go live…")).isEnabled();
    button("Go live…").click();
    Locator dialog = page.locator("dialog");
    dialog.getByText("Go live", new Locator.GetByTextOptions().setExact(true)).click();
  }

  @Test
  void copyKeepsItsOwnAndFollowsItsOriginal() {
    makeCopy();
    page.waitForURL("**/bridges/grave-hazards");
    assertThat(page.getByText("It is a copy of")).isVisible();

    String document = bridge(ORIGINAL).path("document").asText();
    together.send(
        "PUT",
        together.appAddress() + "/api/bridges/" + ORIGINAL + "/document",
        document.replace("move: P7D", "move: P5D"),
        Map.of("Content-Type", "application/yaml"));

    // By keyboard: from the original to its copies, and all of them follow.
    page.navigate(together.appAddress() + "/bridges/" + ORIGINAL);
    assertThat(page.getByText("of which 1 does not follow it yet")).isVisible();
    link("1 copy").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("1 part to take over")).isVisible();
    assertThat(page.getByText("Keeps its own: the condition")).isVisible();
    button("See what its last events would come to").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("No event of it came so far.")).isVisible();
    checkAround(page, "copies");
    page.getByLabel("all that can").focus();
    page.keyboard().press("Space");
    button("Let it follow").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("1 copy follows it now.")).isVisible();
    assertThat(page.getByText("as the original")).isVisible();
    Assertions.assertThat(bridge("grave-hazards").path("document").asText())
        .contains("name: Grave hazards", "P5D");
  }
}
