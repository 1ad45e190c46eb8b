package org.ysthmos.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;

/** With what a person uses a page. */
enum Hand {
  MOUSE {
    @Override
    void press(Page page, Locator what) {
      what.click();
    }

    @Override
    void tick(Page page, Locator box) {
      box.click();
    }

    @Override
    void type(Page page, Locator field, String text) {
      field.click();
      page.keyboard().type(text);
    }
  },
  KEYBOARD {
    @Override
    void press(Page page, Locator what) {
      tabTo(page, what);
      page.keyboard().press("Enter");
    }

    @Override
    void tick(Page page, Locator box) {
      tabTo(page, box);
      page.keyboard().press(" ");
    }

    @Override
    void type(Page page, Locator field, String text) {
      tabTo(page, field);
      page.keyboard().type(text);
    }
  };

  private static final int MOST_TABS = 150;

  abstract void press(Page page, Locator what);

  abstract void tick(Page page, Locator box);

  abstract void type(Page page, Locator field, String text);

  /** Moves the focus on, as the Tab key does, until it stands there. */
  private static void tabTo(Page page, Locator what) {
    what.waitFor();
    for (int i = 0; i < MOST_TABS; i++) {
      if (Boolean.TRUE.equals(what.evaluate("one => one === document.activeElement"))) {
        return;
      }
      page.keyboard().press("Tab");
    }
    throw new AssertionError("the keyboard does not reach " + what);
  }
}
