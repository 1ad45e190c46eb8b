package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.deque.html.axecore.results.Rule;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.ReducedMotion;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What a person does, in a real browser against real processes. */
class PersonIT {

  private static final String TITLE = "Moss garden bridge: Handrail is broken at the top";

  private static Together together;
  private static Playwright playwright;
  private static Browser browser;
  private BrowserContext context;
  private Page page;
  private final List<String> errors = new ArrayList<>();
  private final List<String> elsewhere = new ArrayList<>();

  @BeforeAll
  static void start() {
    together = new Together();
    playwright =
        Playwright.create(
            new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
    browser =
        playwright
            .chromium()
            .launch(
                new BrowserType.LaunchOptions()
                    .setExecutablePath(Path.of(System.getProperty("chromium", "/usr/bin/chromium")))
                    .setArgs(
                        List.of(
                            "--no-sandbox", "--disable-gpu", "--disable-background-networking")));
  }

  @AfterAll
  static void stop() {
    browser.close();
    playwright.close();
    together.close();
  }

  @BeforeEach
  void open() {
    context = open(1280, 800, ColorScheme.LIGHT);
    page = context.newPage();
    page.onConsoleMessage(
        message -> {
          if (message.type().equals("error")) {
            errors.add(message.text());
          }
        });
    page.onRequest(
        request -> {
          if (!request.url().startsWith("http://127.0.0.1") && !request.url().startsWith("data:")) {
            elsewhere.add(request.url());
          }
        });
  }

  private static BrowserContext open(int width, int height, ColorScheme scheme) {
    return browser.newContext(
        new Browser.NewContextOptions()
            .setViewportSize(width, height)
            .setColorScheme(scheme)
            .setReducedMotion(ReducedMotion.REDUCE));
  }

  @AfterEach
  void close() {
    context.close();
    assertThat(errors).as("errors in the browser's console").isEmpty();
    assertThat(elsewhere).as("requests that left the machine").isEmpty();
  }

  /** Fills the form in another window, as the visitor would. */
  private void visitorReports(String problem, String seenOn) {
    Page form = context.newPage();
    form.navigate(together.deskAddress());
    form.getByLabel("Where is it?").fill("Moss garden bridge");
    form.getByLabel("What is wrong?").fill(problem);
    form.getByLabel("When did you see it?").fill(seenOn);
    form.getByLabel("How dangerous is it?").fill("8");
    form.getByLabel("Your mail address").fill("t.abara@mail.example");
    form.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Send")).click();
    assertThat(form.getByText("Its number is")).isVisible();
    form.close();
  }

  private Locator link(String name) {
    return page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  private Locator button(String name) {
    return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
  }

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
    Locator see = page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("See"));
    assertThat(see).isVisible();
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
    tabTo("Send again");
    String before = page.url();
    page.keyboard().press("Enter");
    page.waitForURL(url -> !url.equals(before));
    assertThat(page.getByText("Sent again by a person")).isVisible();
    assertThat(page.getByText("Could not be decided: mapping error")).isVisible();
  }

  /** Moves the focus on until it stands on what has this text. */
  private void tabTo(String text) {
    for (int i = 0; i < 60; i++) {
      page.keyboard().press("Tab");
      Object focused = page.evaluate("document.activeElement.textContent.trim()");
      if (text.equals(focused)) {
        return;
      }
    }
    throw new AssertionError("the keyboard does not reach “" + text + "”");
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

  @ParameterizedTest
  @EnumSource(
      value = ColorScheme.class,
      names = {"LIGHT", "DARK"})
  void placesHaveNoSeriousAccessibilityFindingAndNoSidewaysScrolling(ColorScheme scheme) {
    visitorReports("Branch hanging over the path", "23 November 2026");
    for (int width : new int[] {1280, 1024}) {
      try (BrowserContext narrow = open(width, width == 1280 ? 800 : 768, scheme)) {
        Page at = narrow.newPage();
        for (String place :
            List.of("/watch", "/traces", "/bridges", "/bridges/hazard-to-grounds")) {
          at.navigate(together.appAddress() + place);
          assertThat(at.getByText("Reading…")).hasCount(0);
          check(at, place);
        }
        at.navigate(together.appAddress() + "/traces");
        at.locator("td.title a").first().click();
        assertThat(at.getByText("What happened")).isVisible();
        check(at, "one trace");
      }
    }
  }

  private static void check(Page at, String place) {
    List<String> serious =
        new AxeBuilder(at)
            .analyze().getViolations().stream()
                .filter(rule -> List.of("serious", "critical").contains(rule.getImpact()))
                .map(rule -> rule.getId() + " " + nodes(rule))
                .toList();
    assertThat(serious).as(place).isEmpty();
    assertThat(at.evaluate("document.documentElement.scrollWidth > window.innerWidth"))
        .as(place + " scrolls sideways")
        .isEqualTo(false);
  }

  private static String nodes(Rule rule) {
    return rule.getNodes().stream().map(node -> String.valueOf(node.getHtml())).toList().toString();
  }
}
