package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;

/** Somebody gives eighty lists one bridge, sees them one by one, and takes one that appears. */
class PlacesPersonIT extends InBrowser {

  private static final int LISTS = 80;

  private static final String BOARDS =
      """
      system: bed-boards
      name: Bed boards
      address: %s
      sign-in: { bearer: { secret: grounds-board-token } }
      problem: { message: /error, field: /field }
      directories:
        boards: { call: GET /api/boards, items: /items, id: /id, name: /name }
      collections:
        boards:
          places: boards
          name: Board
          record: task
          title: title
          fields:
            title: { name: Title, type: text, required: true }
            lane: { name: Lane, type: choice, required: true, names: { to-do: To do, done: Done } }
          event-fields:
            /task/id: { name: number, type: text, required: true }
            /task/title: { name: title, type: text, required: true }
          find:
            - { by: [id], call: "GET /api/tasks/{id}" }
          list: { call: "GET /api/boards/{place}/tasks", items: /items, id: /id }
          push:
            verify: { standard-webhooks: { secret: grounds-board-hook } }
            place: /board
            record: /task/id
            kind: /type
            kinds: { task.created: created, task.changed: changed }
            version: /task/revision
      """;

  private static void makeBoard(String name) {
    String form = "name=" + URLEncoder.encode(name, StandardCharsets.UTF_8);
    together.send(
        "POST",
        together.boardAddress() + "/boards",
        form,
        Map.of("Content-Type", "application/x-www-form-urlencoded"));
  }

  private static void work(String board, String title) {
    together.atTheBoard(
        "POST",
        "/api/boards/" + board + "/tasks",
        "{\"title\":\"%s\",\"lane\":\"to-do\"}".formatted(title));
  }

  private static void look() {
    together.send("POST", together.appAddress() + "/api/systems/bed-boards/look", "", Map.of());
  }

  private static void connectTheBoards() {
    for (int i = 1; i <= LISTS; i++) {
      makeBoard("Bed %02d".formatted(i));
    }
    String document =
        BOARDS.formatted(together.boardAddress()).replace("\n", "\\n").replace("\"", "\\\"");
    together.send(
        "POST",
        together.appAddress() + "/api/connect",
        "{\"document\":\"%s\",\"secrets\":{}}".formatted(document),
        Map.of("Content-Type", "application/json"));
    together.send(
        "POST",
        together.boardAddress() + "/api/hooks",
        "{\"address\":\"%s/hooks/bed-boards/boards\",\"secret\":\"%s\"}"
            .formatted(together.appAddress(), Processes.SECRET),
        Map.of("Authorization", "Bearer board", "Content-Type", "application/json"));
    work("bed-01", "Sweep the steps");
    look();
  }

  private Locator row(String place) {
    return page.locator("tbody tr")
        .filter(
            new Locator.FilterOptions()
                .setHas(page.getByText(place, new Page.GetByTextOptions().setExact(true))));
  }

  @Test
  void eightyListsGetOneBridge() {
    connectTheBoards();

    // By mouse: a bridge that begins at one of them.
    page.navigate(together.appAddress() + "/bridges");
    button("New bridge…").click();
    page.getByLabel("When something happens in").selectOption("Bed boards: Bed 01");
    page.getByLabel("make a task in").selectOption("Works Ledger: Jobs");
    page.getByLabel("It is called").fill("Beds to works");
    button("Open its desk").click();
    button("Take it").first().click();

    // By keyboard: all that there are, but for those that are no beds.
    Locator hears = page.getByLabel("Which places it hears");
    hears.focus();
    page.keyboard().type("all");
    Locator told =
        page.getByRole(AriaRole.STATUS).filter(new Locator.FilterOptions().setHasText("places"));
    assertThat(told).containsText("89 of 89 places");
    Locator shown = page.getByLabel("all that are shown");
    shown.focus();
    page.keyboard().press("Space");
    assertThat(told).containsText("1 of 89 places");
    page.getByLabel("Find a place").focus();
    page.keyboard().type("Bed 0");
    shown.focus();
    page.keyboard().press("Space");
    assertThat(told).containsText("10 of 89 places");
    page.getByLabel("Find a place").fill("bed-");
    shown.focus();
    page.keyboard().press("Space");
    assertThat(told).containsText("81 of 89 places");
    page.getByLabel("Find a place").fill("Paths");
    shown.focus();
    page.keyboard().press("Space");
    assertThat(told).containsText("80 of 89 places");
    checkAround(page, "desk with places");
    assertThat(page.getByText("Kept", new Page.GetByTextOptions().setExact(true))).isVisible();
    assertThat(button("Go live…")).isEnabled();
    button("Go live…").click();
    page.locator("dialog")
        .getByText("Go live", new Locator.GetByTextOptions().setExact(true))
        .click();
    page.waitForURL("**/bridges/beds-to-works");

    // What comes of each is seen by place.
    work("bed-05", "Weed the edge");
    work("bed-77", "Stake the dahlias");
    work("bed-77", "Mulch the roses");
    // Of what is no bed it is told, too, and does nothing about it.
    work("yard-north", "Wash the cart");
    link("Its places").click();
    assertThat(row("Bed 77").locator("td").nth(2)).hasText("2");
    assertThat(row("Bed 05").locator("td").nth(2)).hasText("1");
    assertThat(page.locator("tbody tr")).hasCount(LISTS);
    assertThat(page.getByText("9 places of Bed boards that it does not hear")).not().isVisible();
    checkAround(page, "places");
    link("Bed 77").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("from Bed 77")).isVisible();
    assertThat(page.locator("table.rows tbody tr")).hasCount(2);

    // One more appears over there: nothing of it is carried until somebody takes it.
    makeBoard("Bed 81");
    look();
    work("bed-81", "Too early");
    page.navigate(together.appAddress() + "/watch");
    assertThat(page.getByText("1 place of Bed boards is offered to it")).isVisible();
    link("See them").focus();
    page.keyboard().press("Enter");
    page.getByLabel("Bed 81").focus();
    page.keyboard().press("Space");
    button("Hear it").focus();
    page.keyboard().press("Enter");
    assertThat(row("Bed 81")).isVisible();
    work("bed-81", "In time");
    assertThat(row("Bed 81").locator("td").nth(2)).hasText("1");
    Assertions.assertThat(
            together
                .json("GET", together.appAddress() + "/api/bridges/beds-to-works", "", Map.of())
                .path("document")
                .asText())
        .contains("bed-81", "left-out")
        .contains("glasshouses");
  }
}
