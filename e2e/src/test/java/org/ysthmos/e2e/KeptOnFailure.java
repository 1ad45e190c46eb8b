package org.ysthmos.e2e;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.PlaywrightException;
import java.nio.file.Path;
import org.junit.jupiter.api.extension.AfterTestExecutionCallback;
import org.junit.jupiter.api.extension.ExtensionContext;

/**
 * Of a test that fails: what its page showed stands in the log, and a picture of it in {@code
 * target/failed}.
 */
final class KeptOnFailure implements AfterTestExecutionCallback {

  private static final int LONGEST_TEXT = 4_000;

  @Override
  public void afterTestExecution(ExtensionContext test) {
    if (test.getExecutionException().isPresent()
        && test.getRequiredTestInstance() instanceof InBrowser inBrowser) {
      String name =
          test.getRequiredTestClass().getSimpleName()
              + "."
              + test.getRequiredTestMethod().getName();
      keep(name, inBrowser);
    }
  }

  private static void keep(String name, InBrowser test) {
    Page page = test.page;
    Path picture = Path.of("target", "failed", name + ".png").toAbsolutePath();
    try {
      byte[] unused =
          page.screenshot(new Page.ScreenshotOptions().setPath(picture).setFullPage(true));
      String text = page.innerText("body");
      System.out.printf(
          "%s failed at %s, which showed (picture in %s):%n%s%n",
          name, page.url(), picture, text.substring(0, Math.min(LONGEST_TEXT, text.length())));
    } catch (PlaywrightException e) {
      System.out.printf("%s failed, and its page cannot be kept: %s%n", name, e.getMessage());
    }
    test.errors().forEach(error -> System.out.printf("  the browser's console says: %s%n", error));
  }
}
