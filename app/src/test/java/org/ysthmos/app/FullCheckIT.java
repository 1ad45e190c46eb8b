package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.context.SmartLifecycle;

/** Both lists of a bridge that goes both ways, held against what was agreed. */
class FullCheckIT extends BothWaysTestBase {

  @Autowired
  @Qualifier("fullCheckReader")
  private SmartLifecycle reader;

  private static final Map<String, String> JSON_BODY = Map.of("Content-Type", "application/json");

  private static JsonNode post(String path, String body) throws Exception {
    var answered = send("POST", app("/api/full-checks" + path), body, JSON_BODY);
    assertThat(answered.statusCode()).as(answered.body()).isBetween(200, 201);
    return JSON.readTree(answered.body());
  }

  private static JsonNode check(String id) {
    return api("/full-checks/" + id);
  }

  /** Begins a check; gives its number once it has ended. */
  private static String checked() throws Exception {
    String id = post("", "{\"bridge\":\"%s\"}".formatted(BRIDGE)).path("id").asText();
    ended(id);
    return id;
  }

  private static void ended(String id) {
    await()
        .atMost(Duration.ofSeconds(30))
        .until(() -> check(id).path("state").asText().matches("ENDED|FAILED|STOPPED"));
    assertThat(check(id).path("state").asText()).as(check(id).toString()).isEqualTo("ENDED");
  }

  /** Puts all of some kinds right, and waits until it is. */
  private static void putRight(String id, String... kinds) throws Exception {
    post("/" + id + "/repair", "{\"kinds\":[\"%s\"]}".formatted(String.join("\",\"", kinds)));
    ended(id);
  }

  private static List<JsonNode> found(String id) {
    List<JsonNode> found = new ArrayList<>();
    api("/full-checks/" + id + "/differences").forEach(found::add);
    return found;
  }

  private static JsonNode found(String id, String title) {
    return found(id).stream()
        .filter(one -> one.path("title").asText().equals(title))
        .findFirst()
        .orElseThrow(() -> new AssertionError(found(id).toString()));
  }

  /** The board tells nothing of what is done to it next. */
  private static void unheard(int changes) throws Exception {
    fault(BOARD.port(), "hook-lost", "", "", changes);
  }

  /** The job of a task, once it was made across. */
  private static String heard(String task) throws Exception {
    quiet();
    return jobOf(task).orElseThrow().path("id").asText();
  }

  private static String task(String title, String fields) throws Exception {
    return makeTask("{\"title\":\"%s\",\"lane\":\"doing\"%s}".formatted(title, fields))
        .path("id")
        .asText();
  }

  @Test
  void whatWasNeverHeardOfIsFoundAndPutRight() throws Exception {
    String changed = task("Tar the jetty", "");
    String removed = task("Sink the buoy", "");
    task("Sort the ropes", "");
    quiet();
    String job = jobOf(changed).orElseThrow().path("id").asText();
    String left = jobOf(removed).orElseThrow().path("id").asText();
    unheard(3);
    changeTask(changed, "{\"lane\":\"finished\"}");
    board("DELETE", "/api/tasks/" + removed, "");
    String fresh = task("Paint the hull", "");
    quiet();
    assertThat(job(job).path("status").asText()).isEqualTo("in-work");

    int before = traces().size();
    String id = checked();
    assertThat(traces()).as("a check only reads").hasSize(before);
    JsonNode view = check(id);
    assertThat(view.path("left").path("lacks").asText()).isEmpty();
    assertThat(view.path("left").path("read").asInt()).isPositive();
    assertThat(view.path("right").path("read").asInt()).isPositive();
    JsonNode carried = found(id, "Tar the jetty");
    assertThat(carried.path("kind").asText()).isEqualTo("NOT_CARRIED");
    assertThat(carried.path("side").asText()).isEqualTo("RIGHT");
    assertThat(carried.path("fields").asText()).isEqualTo("status");
    assertThat(carried.path("words").asText()).isEqualTo("Works Ledger: Status “Done”");
    assertThat(found(id, "Paint the hull").path("kind").asText()).isEqualTo("NOT_MADE");
    JsonNode gone = found(id, "Sink the buoy");
    assertThat(gone.path("kind").asText()).isEqualTo("GONE");
    assertThat(gone.path("side").asText()).isEqualTo("LEFT");
    assertThat(found(id))
        .extracting(one -> one.path("title").asText())
        .doesNotContain("Sort the ropes");

    post("/" + id + "/repair", "{\"numbers\":[%d]}".formatted(carried.path("number").asInt()));
    ended(id);
    assertThat(job(job).path("status").asText()).isEqualTo("done");
    assertThat(jobOf(fresh)).as("only what was chosen").isEmpty();
    assertThat(found(id, "Tar the jetty").path("state").asText()).isEqualTo("PUT_RIGHT");

    putRight(id, "NOT_MADE", "GONE");
    quiet();
    assertThat(jobOf(fresh).orElseThrow().path("title").asText()).isEqualTo("Paint the hull");
    JsonNode pair = api("/kept-pairs?id=" + left).get(0);
    assertThat(pair.path("parted").asText()).contains("was removed");
    assertThat(job(left).path("title").asText()).as("it stays").isEqualTo("Sink the buoy");

    String again = checked();
    assertThat(found(again)).isEmpty();
    assertThat(check(again).path("aside").asInt()).isPositive();
  }

  @Test
  void whatChangedApartIsAskedOnceItIsPutRight() throws Exception {
    String task = task("Drain the pond", "");
    String job = heard(task);
    unheard(1);
    changeTask(task, "{\"title\":\"Drain the lower pond\"}");
    // Nobody asks the ledger before the check does.
    changeJob(job, "{\"title\":\"Pond: drain it\"}");
    String id = checked();
    JsonNode apart = found(id, "Drain the pond");
    assertThat(apart.path("kind").asText()).isEqualTo("APART");
    assertThat(apart.path("fields").asText()).isEqualTo("title");
    assertThat(disagreements()).isEmpty();
    putRight(id, "APART");
    assertThat(disagreements()).hasSize(1);
    answer(disagreements().getFirst(), "LEFT", "");
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("Drain the lower pond");
  }

  /** One at a time; what is refused says why, and a stop lets be what was read. */
  @Test
  void checkIsStoppedAndAnotherBegun() throws Exception {
    fault(BOARD.port(), "down", "GET", "/api/boards/works/tasks", 400);
    String id = post("", "{\"bridge\":\"%s\"}".formatted(BRIDGE)).path("id").asText();
    await().until(() -> check(id).path("problem").asText().length() > 10);
    var twice =
        send("POST", app("/api/full-checks"), "{\"bridge\":\"%s\"}".formatted(BRIDGE), JSON_BODY);
    assertThat(twice.statusCode()).isEqualTo(409);
    assertThat(twice.body()).contains("is being checked");
    post("/" + id + "/stop", "");
    assertThat(check(id).path("state").asText()).isEqualTo("STOPPED");
    noFaultsAndTheDemoRules();
    assertThat(check(checked()).path("problem").asText()).isEmpty();
    var oneWay =
        send("POST", app("/api/full-checks"), "{\"bridge\":\"hazard-to-grounds\"}", JSON_BODY);
    assertThat(oneWay.statusCode()).isEqualTo(404);
  }

  /** A list is no proof of what it does not tell. */
  @Test
  void listThatTellsLessThanItsTasksIsNotTakenAtItsWord() throws Exception {
    String task = task("Weed the quay", "");
    String job = heard(task);
    unheard(1);
    changeTask(task, "{\"lane\":\"finished\"}");
    String renamed =
        """
        {"kind":"field-renamed","method":"GET","below":"/api/boards/works","field":"lane:lene","calls":99}
        """;
    String faults = "http://127.0.0.1:" + BOARD.port() + "/control/faults";
    assertThat(send("POST", faults, renamed, Map.of()).statusCode()).isEqualTo(204);
    String id = checked();
    noFaultsAndTheDemoRules();
    assertThat(check(id).path("left").path("lacks").asText()).isEqualTo("/lane");
    JsonNode weeded = found(id, "Weed the quay");
    assertThat(weeded.path("fields").asText()).isEqualTo("status");
    assertThat(weeded.path("right").path("record").asText()).isEqualTo(job);
    assertThat(found(id)).hasSize(1);
    putRight(id, "NOT_CARRIED");
    quiet();
    assertThat(job(job).path("status").asText()).isEqualTo("done");
  }

  /** How far it is stands with the check alone, so that whoever starts next goes on with it. */
  @Test
  void checkGoesOnWhereItStoodWhenTheApplicationStops() throws Exception {
    String task = task("Scrub the slipway", "");
    String job = heard(task);
    unheard(1);
    changeTask(task, "{\"lane\":\"finished\"}");
    fault(LEDGER.port(), "slow", "GET", "/api/changes", 2);
    String id = post("", "{\"bridge\":\"%s\"}".formatted(BRIDGE)).path("id").asText();
    await().until(() -> check(id).path("state").asText().equals("READING_RIGHT"));
    reader.stop();
    JsonNode stood = check(id);
    assertThat(stood.path("state").asText()).isNotEqualTo("ENDED");
    assertThat(stood.path("toLook").asInt()).as("what the first list showed is kept").isPositive();
    reader.start();
    ended(id);
    assertThat(check(id).path("left").path("read").asInt())
        .isEqualTo(stood.path("left").path("read").asInt());
    assertThat(found(id, "Scrub the slipway").path("fields").asText()).isEqualTo("status");
    putRight(id, "NOT_CARRIED");
    quiet();
    assertThat(job(job).path("status").asText()).isEqualTo("done");
  }

  private static JsonNode both(String title, String jobTitle) throws Exception {
    unheard(1);
    task(title, "");
    return makeJob(
        "{\"title\":\"%s\",\"status\":\"in-work\",\"labels\":[\"board\"]}".formatted(jobTitle));
  }

  /** Both lists had it before anything was told: it is not made a second time on either side. */
  @Test
  void tasksThatMayBeTheSameMeetOnceAPersonSaysSo() throws Exception {
    String job = both("Mend the tide gate", "Mend the tide gates").path("id").asText();
    String id = checked();
    JsonNode one = found(id, "Mend the tide gate");
    assertThat(one.path("kind").asText()).as(found(id) + " " + check(id)).isEqualTo("MAY_BE_ONE");
    assertThat(one.path("right").path("record").asText()).isEqualTo(job);
    assertThat(one.path("words").asText())
        .startsWith("One character of the title differs: “Mend the tide gates”")
        .contains("Grounds Board: Labels “board”");
    assertThat(one.path("fields").asText()).isEqualTo("title");
    assertThat(found(id)).as("neither is told as one that was never made").hasSize(1);

    putRight(id, "MAY_BE_ONE");
    String task = one.path("left").path("record").asText();
    JsonNode pair = api("/kept-pairs?id=" + task).get(0);
    assertThat(pair.path("right").path("record").asText()).isEqualTo(job);
    quiet();
    assertThat(task(task).path("labels").toString()).isEqualTo("[\"board\"]");
    assertThat(job(job).path("link").asText()).endsWith("#" + task);
    assertThat(disagreements()).hasSize(1);
    answer(disagreements().getFirst(), "LEFT", "");
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("Mend the tide gate");
  }

  /** By hand even two that no list would show as the same, and again after they were parted. */
  @Test
  void twoTasksArePairedByHandAndUnitedAgain() throws Exception {
    String job = both("Hang the lamps", "Lamps on the pier").path("id").asText();
    JsonNode left = found(checked(), "Hang the lamps").path("left");
    String task = left.path("record").asText();
    String wish = "{\"left\":\" %s \",\"right\":\"%s\"}".formatted(task, job);
    String at = app("/api/kept-pairs/" + BRIDGE);
    assertThat(send("POST", at + "/meet", wish, JSON_BODY).statusCode()).isEqualTo(200);
    quiet();
    JsonNode pair = api("/kept-pairs?id=" + job).get(0);
    assertThat(pair.path("left").path("record").asText()).isEqualTo(task);
    answer(disagreements().getFirst(), "RIGHT", "");
    quiet();
    assertThat(task(task).path("title").asText()).isEqualTo("Lamps on the pier");

    String part = at + "/" + pair.path("key").asText() + "/part";
    assertThat(send("POST", part, "", Map.of()).statusCode()).isEqualTo(200);
    changeTask(task, "{\"lane\":\"finished\"}");
    quiet();
    assertThat(job(job).path("status").asText()).isEqualTo("in-work");
    assertThat(send("POST", at + "/meet", wish, JSON_BODY).statusCode()).isEqualTo(200);
    quiet();
    assertThat(job(job).path("status").asText()).isEqualTo("done");
    assertThat(api("/kept-pairs?id=" + job).get(0).path("parted").asText()).isEmpty();
    String nobody = "{\"left\":\"\",\"right\":\"x\"}";
    assertThat(send("POST", at + "/meet", nobody, JSON_BODY).statusCode()).isEqualTo(400);
  }

  @Test
  void tasksThatAreTwoAfterAllAreEachMadeAcross() throws Exception {
    both("Rake the lower paths", "Rake the lower path");
    String id = checked();
    JsonNode one = found(id, "Rake the lower paths");
    post("/" + id + "/part", "{\"numbers\":[%d]}".formatted(one.path("number").asInt()));
    assertThat(found(id)).extracting(each -> each.path("kind").asText()).containsOnly("NOT_MADE");
    assertThat(found(id)).hasSize(2);
    assertThat(found(checked())).as("a person is not asked again").hasSize(2);
    putRight(id, "NOT_MADE");
    quiet();
    assertThat(jobOf(one.path("left").path("record").asText()).orElseThrow().path("title").asText())
        .isEqualTo("Rake the lower paths");
  }

  @Test
  void taskThatAPersonLeavesAsItIsIsNotMadeAcrossUntilItIsTakenUp() throws Exception {
    unheard(2);
    String task = task("Number the old stakes", "");
    quiet();
    String id = checked();
    JsonNode one = found(id, "Number the old stakes");
    post("/" + id + "/leave", "{\"numbers\":[%d]}".formatted(one.path("number").asInt()));
    assertThat(found(id, "Number the old stakes").path("state").asText()).isEqualTo("LEFT");
    JsonNode kind = check(id).path("kinds").path(0);
    assertThat(kind.path("left").asInt()).isEqualTo(1);
    assertThat(found(checked())).as("a person is not told again").isEmpty();

    changeTask(task, "{\"lane\":\"finished\"}");
    changeTask(task, "{\"title\":\"Number the old stakes again\"}");
    quiet();
    assertThat(jobOf(task)).as("nothing becomes of what is done to it").isEmpty();

    JsonNode alone = api("/kept-pairs?id=" + task).path(0);
    assertThat(alone.path("parted").asText()).contains("left as it is");
    String at = "/api/kept-pairs/" + BRIDGE + "/" + alone.path("key").asText() + "/take-up";
    assertThat(send("POST", app(at), "", Map.of()).statusCode()).isEqualTo(200);
    quiet();
    assertThat(jobOf(task).orElseThrow().path("title").asText())
        .isEqualTo("Number the old stakes again");
    assertThat(send("POST", app(at), "", Map.of()).statusCode()).isEqualTo(409);
  }

  @Test
  void taskThatWasLeftAsItIsCanBePairedByHand() throws Exception {
    unheard(1);
    String task = task("Sand the sluice boards", "");
    quiet();
    String id = checked();
    int number = found(id, "Sand the sluice boards").path("number").asInt();
    post("/" + id + "/leave", "{\"numbers\":[%d]}".formatted(number));
    String job =
        makeJob("{\"title\":\"Sluice boards\",\"status\":\"in-work\"}").path("id").asText();
    String wish = "{\"left\":\"%s\",\"right\":\"%s\"}".formatted(task, job);
    send("POST", app("/api/kept-pairs/" + BRIDGE + "/meet"), wish, JSON_BODY);
    quiet();
    JsonNode pair = api("/kept-pairs?id=" + job).path(0);
    assertThat(pair.path("left").path("record").asText()).isEqualTo(task);
    assertThat(pair.path("parted").asText()).isEmpty();
    answer(disagreements().getFirst(), "LEFT", "");
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("Sand the sluice boards");
  }

  /** A copy of the board was put back: what it holds is older, though it looks like a change. */
  @Test
  void sideThatWasPutBackFollowsTheOtherWhereAPersonSaysSo() throws Exception {
    String task = task("Dredge the basin", "");
    String job = heard(task);
    changeJob(job, "{\"status\":\"done\"}");
    quiet();
    assertThat(task(task).path("lane").asText()).isEqualTo("finished");
    unheard(1);
    changeTask(task, "{\"lane\":\"doing\"}");
    String id = checked();
    assertThat(found(id, "Dredge the basin").path("words").asText())
        .isEqualTo("Works Ledger: Status “In work”");
    post("/" + id + "/repair", "{\"kinds\":[\"NOT_CARRIED\"],\"leads\":\"RIGHT\"}");
    ended(id);
    quiet();
    assertThat(task(task).path("lane").asText()).isEqualTo("finished");
    assertThat(job(job).path("status").asText()).isEqualTo("done");
  }

  /** Both were changed to the same while nothing was heard: the next change is one of one side. */
  @Test
  void whatBothWereChangedToIsNoted() throws Exception {
    String task = task("Stack the timber", "");
    String job = heard(task);
    unheard(1);
    changeTask(task, "{\"title\":\"Stack the oak\"}");
    changeJob(job, "{\"title\":\"Stack the oak\"}");
    String id = checked();
    assertThat(found(id, "Stack the timber").path("kind").asText()).isEqualTo("NOT_NOTED");
    putRight(id, "NOT_NOTED");
    JsonNode fields = api("/kept-pairs?id=" + task).get(0).path("fields");
    assertThat(fields.get(0).path("left").asText()).isEqualTo("Stack the oak");
    changeTask(task, "{\"title\":\"Stack the elm\"}");
    quiet();
    assertThat(disagreements()).isEmpty();
    assertThat(job(job).path("title").asText()).isEqualTo("Stack the elm");
  }
}
