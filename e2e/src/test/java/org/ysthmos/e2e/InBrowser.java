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
import com.microsoft.playwright.assertions.PlaywrightAssertions;
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
import org.junit.jupiter.api.extension.ExtendWith;

/** A real browser against real processes, and what every person does in it. */
@ExtendWith(KeptOnFailure.class)
abstract class InBrowser {

  private static final int WIDTH = 1280;
  private static final int HEIGHT = 800;

  /** For what is to be seen; a machine that is shared may do nothing at all for some seconds. */
  private static final double PATIENCE_MILLIS = 20_000;

  static Together together;
  private static Playwright playwright;
  static Browser browser;
  BrowserContext context;
  Page page;
  private final List<String> errors = new ArrayList<>();
  private final List<String> elsewhere = new ArrayList<>();

  @BeforeAll
  static void start() {
    PlaywrightAssertions.setDefaultAssertionTimeout(PATIENCE_MILLIS);
    together = new Together("--ysthmos.settable-clock=true");
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
    context = newWindow();
    page = context.newPage();
    page.onConsoleMessage(
        message -> {
          if (message.type().equals("error")) {
            errors.add(message.text() + " " + message.location());
          }
        });
    page.onRequest(
        request -> {
          if (!request.url().startsWith("http://127.0.0.1") && !request.url().startsWith("data:")) {
            elsewhere.add(request.url());
          }
        });
  }

  /** A window of somebody else's. */
  static BrowserContext newWindow() {
    return browser.newContext(
        new Browser.NewContextOptions()
            .setViewportSize(WIDTH, HEIGHT)
            .setColorScheme(ColorScheme.LIGHT)
            .setReducedMotion(ReducedMotion.REDUCE));
  }

  @AfterEach
  void close() {
    context.close();
    assertThat(errors).as("errors in the browser's console").isEmpty();
    assertThat(elsewhere).as("requests that left the machine").isEmpty();
  }

  /** What the browser's console told of as an error. */
  List<String> errors() {
    return List.copyOf(errors);
  }

  /** The browser tells of every refusal; this one was meant. */
  void refusedByTheServer(int status) {
    assertThat(errors.removeIf(error -> error.contains("status of " + status))).isTrue();
  }

  /** Fills the form in another window, as the visitor would. */
  void visitorReports(String problem, String seenOn) {
    String unused = visitorReports(problem, seenOn, "8");
  }

  /** Sends a report in; gives its number. */
  String visitorReports(String problem, String seenOn, String danger) {
    Page form = context.newPage();
    form.navigate(together.deskAddress());
    form.getByLabel("Where is it?").fill("Moss garden bridge");
    form.getByLabel("What is wrong?").fill(problem);
    form.getByLabel("When did you see it?").fill(seenOn);
    form.getByLabel("How dangerous is it?").fill(danger);
    form.getByLabel("Your mail address").fill("t.abara@mail.example");
    form.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Send")).click();
    assertThat(form.getByText("Its number is")).isVisible();
    String number = form.locator("#number").innerText();
    form.close();
    return number;
  }

  Locator link(String name) {
    return page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  Locator button(String name) {
    return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
  }

  /** Moves the focus on until it stands on what has this text. */
  void tabTo(String text) {
    for (int i = 0; i < 60; i++) {
      page.keyboard().press("Tab");
      Object focused = page.evaluate("document.activeElement.textContent.trim()");
      if (text.equals(focused)) {
        return;
      }
    }
    throw new AssertionError("the keyboard does not reach “" + text + "”");
  }

  static void check(Page at, String place) {
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

  /** The same, and once more in the dark and on a narrower screen. */
  static void checkAround(Page at, String place) {
    check(at, place);
    scheme(at, ColorScheme.DARK);
    at.setViewportSize(1024, 768);
    check(at, place + ", in the dark and narrower");
    scheme(at, ColorScheme.LIGHT);
    at.setViewportSize(WIDTH, HEIGHT);
  }

  private static void scheme(Page at, ColorScheme scheme) {
    at.emulateMedia(new Page.EmulateMediaOptions().setColorScheme(scheme));
  }

  private static String nodes(Rule rule) {
    return rule.getNodes().stream().map(node -> String.valueOf(node.getHtml())).toList().toString();
  }
}
