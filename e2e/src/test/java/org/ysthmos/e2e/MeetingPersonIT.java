package org.ysthmos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.assertions.LocatorAssertions;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Two lists that both have their tasks already, as a person lets them meet. */
class MeetingPersonIT extends InBrowser {

  private static final String[] DOES = {
    "Mend", "Paint", "Clear", "Measure", "Replace", "Water", "Inspect", "Tar", "Carry off", "Number"
  };
  private static final String[] WHAT = {
    "the sluice gate", "the boat shed", "the lower culvert", "the rose arch", "the tool store",
    "the fernery roof", "the east stile", "the mooring posts", "the alder stumps", "the dry wall",
    "the bee hives", "the seed drawers", "the ice house", "the kitchen pump", "the long border",
    "the herb labels", "the plank bridge", "the glass frames", "the owl boxes", "the tide clock"
  };
  private static final int SAME = 160;
  private static final int NEARLY = 20;
  private static final int ALL = 200;
  private static final LocatorAssertions.IsVisibleOptions PATIENTLY =
      new LocatorAssertions.IsVisibleOptions().setTimeout(120_000);

  private static String title(int i) {
    return DOES[i / WHAT.length] + " " + WHAT[i % WHAT.length];
  }

  private static void bothListsHaveTheirTasks(OldList old) {
    for (int i = 0; i < ALL; i++) {
      old.add(title(i));
    }
    for (int i = 0; i < ALL; i++) {
      boolean meets = i < SAME + NEARLY;
      String nearly = i < SAME ? title(i) : title(i) + "s";
      together.send(
          "POST",
          together.address("works-ledger") + "/api/jobs",
          JsonNodeFactory.instance
              .objectNode()
              .put("title", meets ? nearly : "Order part AX-%d at the chandler's".formatted(i))
              .put("status", "open")
              .set("labels", JsonNodeFactory.instance.arrayNode().add("shared"))
              .toString(),
          Map.of("Authorization", "Bearer t"));
    }
    // They are heard of before the bridge is there, so that none is news to it.
    together.askAllAndWait();
    together.askAllAndWait();
  }

  private static void bridgeIsThere(OldList old) {
    Map<String, String> json = Map.of("Content-Type", "application/json");
    var wish =
        JsonNodeFactory.instance
            .objectNode()
            .put("document", OldList.DOCUMENT.formatted(old.port()));
    wish.putObject("secrets").put("old-list-token", "t");
    var kept = together.send("POST", together.appAddress() + "/api/connect", wish.toString(), json);
    assertThat(kept.statusCode()).as(kept.body()).isEqualTo(204);
    var live =
        together.send(
            "PUT",
            together.appAddress() + "/api/bridges/old-and-new/document",
            """
            bridge: old-and-new
            name: Old list and ledger
            purpose: Nothing of the old list is lost
            between:
              left: { system: old-list, collection: tasks, event: changed }
              right:
                system: works-ledger
                collection: jobs
                event: [created, changed]
                when: { all: [ { value: /labels, contains: shared } ] }
            fields:
              title: { left: title, right: title, both-changed: left-wins }
              state:
                left: state
                right: status
                to-right: { values: { to-do: open, done: done } }
                to-left: { values: { open: to-do, done: done } }
            ceiling: { creates: 500, changes: 500, per: PT1H }
            """,
            Map.of("Content-Type", "application/yaml"));
    assertThat(live.statusCode()).as(live.body()).isBetween(200, 204);
  }

  @Test
  void twoListsOfTwoHundredMeetByKeyboardAndNothingIsMadeTwice() {
    try (OldList old = new OldList()) {
      bothListsHaveTheirTasks(old);
      bridgeIsThere(old);
      page.navigate(together.appAddress() + "/bridges/old-and-new/full-check");
      enter("Check both sides now");
      Locator meets = button("May be the same 180");
      assertThat(meets).isVisible(PATIENTLY);
      assertThat(button("Not made on the other side 40")).isVisible();
      checkAround(page, "two lists that meet");
      assertThat(old.titles()).as("only read so far").hasSize(ALL);

      enter("May be the same 180");
      assertThat(page.getByText("The titles are the same").first()).isVisible();
      enter("Put 180 right…");
      assertThat(page.getByText("180 pairs made of two tasks that are there")).isVisible();
      page.keyboard().press("Enter");
      assertThat(page.getByText("180 of 220 differences are put right")).isVisible(PATIENTLY);

      enter("Not made on the other side 40");
      Locator first = page.getByLabel("Choose " + title(SAME + NEARLY));
      first.focus();
      page.keyboard().press("Space");
      enter("Leave it as it is");
      assertThat(page.getByText("1 task is left as it is")).isVisible();
      enter("Put 39 right…");
      assertThat(page.getByText("39 tasks made on the other side")).isVisible();
      page.keyboard().press("Enter");
      assertThat(page.getByText("219 of 220 differences are put right")).isVisible(PATIENTLY);
      eachIsThereOnce(old);
    }
  }

  private static void eachIsThereOnce(OldList old) {
    await()
        .atMost(Duration.ofSeconds(30))
        .until(() -> old.titles().size() == ALL + ALL - SAME - NEARLY);
    List<String> jobs = new ArrayList<>();
    together.records("works-ledger").stream()
        .filter(job -> job.path("labels").toString().contains("shared") || isOfOldList(job))
        .forEach(job -> jobs.add(job.path("title").asText()));
    assertThat(old.titles()).doesNotHaveDuplicates();
    assertThat(jobs).doesNotHaveDuplicates().hasSize(ALL + ALL - SAME - NEARLY - 1);
    assertThat(jobs).doesNotContain(title(SAME + NEARLY));
    assertThat(jobs).contains(title(SAME)).doesNotContain(title(SAME) + "s");
  }

  private static boolean isOfOldList(JsonNode job) {
    String title = job.path("title").asText();
    return IntStream.range(0, ALL).anyMatch(i -> title(i).equals(title));
  }

  private void enter(String name) {
    button(name).focus();
    page.keyboard().press("Enter");
  }
}
