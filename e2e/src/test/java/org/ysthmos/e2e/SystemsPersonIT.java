package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** A system that is asked, and one that does not answer, as a person meets them. */
class SystemsPersonIT extends InBrowser {

  @Test
  void pledgeIsFoundByAskingAndBecomesATask() {
    page.navigate(together.appAddress() + "/systems");
    Locator register =
        page.getByLabel("Friends Register", new Page.GetByLabelOptions().setExact(true));
    assertThat(register.getByText("asked every minute, answered")).isVisible();
    Page form = context.newPage();
    form.navigate(together.friendsAddress());
    form.getByLabel("Your mail address").fill("k.moreau@mail.example");
    form.getByLabel("What do you pledge?").fill("A bench by the pond");
    form.getByLabel("Which steward do you know?").fill("T.Abara@tidewrack.example");
    form.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Pledge")).click();
    assertThat(form.getByText("Your pledge has the number")).isVisible();
    form.close();

    page.waitForResponse("**/ask", () -> button("Ask Pledges now").click());
    page.navigate(together.appAddress() + "/traces?bridge=pledge-follow-up");
    link("Pledge of k.moreau@mail.example: A bench by the pond").click();
    assertThat(page.getByText("Asked Friends Register what changed, stored")).isVisible();
    assertThat(page.getByText("Tomás Abara").first()).isVisible();
  }

  @Test
  void systemThatDoesNotAnswerIsNamedWithItsRemedyUntilItDoes() {
    page.navigate(together.appAddress() + "/systems");
    together.fault(together.boardAddress(), "token-expired", "GET", "/api/boards/society", 1, 0);
    button("Look at Grounds Board now").click();
    assertThat(page.getByText("Give the connection to Grounds Board a valid token")).isVisible();
    check(page, "systems with a trouble");
    page.navigate(together.appAddress() + "/watch");
    assertThat(page.getByText("Grounds Board, Friends' society does not answer")).isVisible();
    link("See the system").click();
    button("Look at Grounds Board now").click();
    assertThat(page.getByText("a valid token")).hasCount(0);
    assertThat(page.getByText("as described").first()).isVisible();
  }

  @Test
  void faultIsPractisedByKeyboardSeenAndSwitchedOff() {
    page.navigate(together.appAddress() + "/systems");
    Locator ledger = page.getByLabel("Works Ledger", new Page.GetByLabelOptions().setExact(true));
    ledger.getByText("Practise its faults").focus();
    page.keyboard().press("Enter");
    Locator kind = ledger.getByLabel("A fault of Works Ledger");
    assertThat(kind).isVisible();
    kind.selectOption("token-expired");
    ledger.getByRole(AriaRole.SPINBUTTON).fill("5");
    ledger.getByLabel("For how long").selectOption("minutes");
    ledger.getByRole(AriaRole.SPINBUTTON).press("Enter");
    assertThat(ledger.getByRole(AriaRole.STATUS))
        .containsText(Pattern.compile("The token has expired: 401, until \\d\\d:\\d\\d:\\d\\d"));
    check(page, "systems with a fault switched on");
    button("Look at Works Ledger now").click();
    assertThat(ledger.getByText("Give the connection to Works Ledger a valid token").first())
        .isVisible();
    ledger.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("All off")).click();
    assertThat(ledger.getByRole(AriaRole.STATUS)).containsText("none is on");
    button("Look at Works Ledger now").click();
    assertThat(ledger.getByText("a valid token")).hasCount(0);
  }

  @Test
  void systemIsConnectedFromItsDescriptionAndTriedCallByCall() {
    page.navigate(together.appAddress() + "/systems");
    link("Connect a system").click();
    check(page, "connecting a system, the beginning");
    String description = together.address("works-ledger") + "/openapi.json";
    page.getByLabel("Address of its OpenAPI description").fill(description);
    page.keyboard().press("Enter");
    Locator document = page.getByLabel("The document of the system");
    assertThat(document).hasValue(Pattern.compile("system: works-ledger"));
    document.fill(document.inputValue().replace("works-ledger", "second-ledger"));
    page.getByLabel("second-ledger-token").fill("not the token");
    button("Ask what changed: Jobs").click();
    assertThat(page.getByText("Give the connection to Works Ledger a valid token")).isVisible();
    page.getByLabel("second-ledger-token").fill("t");
    button("Ask what changed: Jobs").click();
    assertThat(page.getByText(Pattern.compile("\\d+ jobs? came"))).isVisible();
    check(page, "connecting a system, a call tried");
    button("Connect it").click();
    assertThat(link("The document of Works Ledger")).hasCount(2);
  }

  /**
   * Of twenty-five collections one is found by typing and drafted; its certificate is looked at.
   */
  @Test
  void collectionIsChosenOfManyByKeyboardAndTheCertificateIsLookedAt() {
    StringBuilder paths = new StringBuilder();
    for (int i = 0; i < 25; i++) {
      paths.append(
          """
          %s"/things%d":{"get":{"responses":{"200":{"content":{"application/json":{"schema":
            {"type":"array","items":{"type":"object","properties":{"id":{"type":"string"},"f%d":{"type":"string"}}}}}}}}}}
          """
              .formatted(i == 0 ? "" : ",", i, i));
    }
    page.navigate(together.appAddress() + "/systems");
    link("Connect a system").click();
    page.getByText("Or paste it").click();
    // Nobody listens there: nothing is shown, and why is said.
    page.getByLabel("The OpenAPI description")
        .fill(
            "{\"openapi\":\"3.0.3\",\"info\":{\"title\":\"Many\"},\"servers\":[{\"url\":\"https://localhost:1\"}],\"paths\":{"
                + paths
                + "}}");
    button("Draft from this").click();
    assertThat(page.getByText("It describes 25 collections. Which do you need?")).isVisible();
    check(page, "connecting a system, choosing of many");
    page.getByLabel("Search the collections").fill("things17");
    page.keyboard().press("Enter");
    tabTo("Draft 1");
    page.keyboard().press("Enter");
    Locator document = page.getByLabel("The document of the system");
    assertThat(document).hasValue(Pattern.compile("GET /things17"));
    org.assertj.core.api.Assertions.assertThat(document.inputValue()).doesNotContain("/things16");
    button("Look at what it shows").click();
    assertThat(page.getByText(Pattern.compile("Connection refused"))).isVisible();
    check(page, "connecting a system, its certificate");
  }
}
