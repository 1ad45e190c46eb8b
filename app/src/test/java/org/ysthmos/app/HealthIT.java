package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What stands in the way of a system is named with its remedy. */
class HealthIT extends AppTestBase {

  private static JsonNode look(String system) throws Exception {
    var answer = send("POST", app("/api/systems/" + system + "/look"), "", Map.of());
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body());
  }

  @Test
  void everyCollectionSaysWhatCanBeDoneThereAndWhoUsesIt() throws Exception {
    JsonNode register = look("friends-register");
    JsonNode pledges = register.at("/collections/0");
    assertThat(pledges.path("problem").asText()).isEmpty();
    assertThat(pledges.path("lookedAt").asText()).isNotBlank();
    assertThat(pledges.path("can").toString()).contains("is asked what changed", "finds by id");
    assertThat(pledges.path("cannot").toString())
        .contains("make a pledge", "change one", "take one away")
        .doesNotContain("see what changed");
    assertThat(pledges.at("/bridges/0/name").asText()).isEqualTo("Pledge follow-up");
    assertThat(look("chore-table").at("/collections/0/cannot").toString())
        .contains("make an exhibition");
    JsonNode board = look("grounds-board");
    assertThat(board.path("limitCalls").asInt()).isEqualTo(90);
    assertThat(board.at("/collections/0/can").toString()).contains("makes a task", "takes a task");
    // A lookup counts as use.
    assertThat(look("visitor-desk").at("/collections/0/bridges/0/id").asText())
        .isEqualTo("hazard-to-grounds");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          token-expired | the token has expired    | a valid token
          forbidden     | may not do that          | Ask the owner of Grounds Board for the permission
          error         | something broke here     | ''
          too-many      | too many calls           | ''
          down          | gave no answer           | ''
          """)
  void whatIsWrongIsNamedWithItsRemedyAndPassesWhenItPasses(
      String fault, String cause, String remedy) throws Exception {
    fault(BOARD.port(), fault, "GET", "/api/boards/paths-and-trees", 1);
    JsonNode board = look("grounds-board");
    String problem = board.at("/collections/0/problem").asText();
    assertThat(problem).contains(cause).contains(remedy);
    // The other board of the same system is well, and says so.
    assertThat(board.at("/collections/1/problem").asText()).isEmpty();
    assertThat(look("grounds-board").at("/collections/0/problem").asText()).isEmpty();
  }

  @Test
  void boardSaysHowFullItIsAndWhyThatIsNotKnown() throws Exception {
    JsonNode quota = look("grounds-board").path("quota");
    assertThat(quota.path("of").asText()).isEqualTo("open tasks");
    assertThat(quota.path("most").asInt()).isEqualTo(5000);
    assertThat(quota.path("nearlyFull").asBoolean()).isFalse();
    int before = quota.path("used").asInt();
    settled(report(Map.of()), 1);
    assertThat(look("grounds-board").at("/quota/used").asInt()).isEqualTo(before + 1);
    fault(BOARD.port(), "forbidden", "GET", "/api/account", 1);
    assertThat(look("grounds-board").at("/quota/problem").asText()).contains("may not do that");
    assertThat(look("friends-register").path("quota").isNull()).isTrue();
  }

  @Test
  void fullBoardIsToldFromOneThatForbidsAndTakesTheTaskWhenThereIsRoom() throws Exception {
    fault(BOARD.port(), "quota-full", "POST", "/api/boards", 1);
    String number = report(Map.of());
    JsonNode failed = settled(number, 1);
    assertThat(failed.path("failureKind").asText()).isEqualTo("quota full");
    assertThat(failed.path("reason").asText()).contains("more room; then send again");
    resend(failed);
    assertThat(settled(number, 2).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void systemThatNobodyKnowsIsNotLookedAt() throws Exception {
    var answer = send("POST", app("/api/systems/nowhere/look"), "", Map.of());
    assertThat(answer.statusCode()).isEqualTo(404);
  }
}
