package org.ysthmos.adapters.http;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.node.DecimalNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** Making, changing and taking away. */
class HttpDeliveryTest extends WithScriptedSystem {

  @Test
  void makesATaskByBothCallsAndTellsOfTheFirstAtOnce() {
    willAnswer(201, "{\"id\":\"j 7\",\"title\":\"Sweep\",\"priority\":1.5}");
    willAnswer(200, "{\"notes\":\"by hand\"}");
    assertThat(deliver(true, Optional.empty(), fields()))
        .isEqualTo(
            new TaskGateway.Delivered(
                "j 7",
                Map.of(
                    "title", TextNode.valueOf("Sweep"),
                    "priority", DecimalNode.valueOf(new BigDecimal("1.5")),
                    "notes", TextNode.valueOf("by hand")),
                List.of()));
    assertThat(seen)
        .containsExactly(
            "POST /jobs {\"title\":\"Sweep\",\"due\":\"2026-11-30T17:00:00Z\",\"priority\":1.5,"
                + "\"key\":\"key-1\"}",
            "made j 7",
            "PUT /jobs/j%207/notes {\"notes\":\"by hand\"}");
  }

  @Test
  void fieldsStandWithinTheObjectsWhereTheyArePlacedAndAreReadBackFromThere() {
    SequencedMap<String, Value> parcel = new LinkedHashMap<>();
    parcel.put("title", Text.of("Seeds"));
    parcel.put("owner", Text.of("u-7"));
    parcel.put("town", Text.of("Tidewrack"));
    willAnswer(
        201,
        "{\"parcel\":{\"id\":\"p1\",\"title\":\"Seeds\",\"who\":{\"owner\":\"U-7\",\"at\":{\"town\":\"T.\"}}}}");
    var effect =
        new TaskGateway.Effect("parcels", EffectKind.CREATE, "key-1", Optional.empty(), parcel);
    assertThat(system.deliver(effect, made -> {}, calls::add))
        .isEqualTo(
            new TaskGateway.Delivered(
                "p1",
                Map.of(
                    "title", TextNode.valueOf("Seeds"),
                    "owner", TextNode.valueOf("U-7"),
                    "town", TextNode.valueOf("T.")),
                List.of()));
    assertThat(seen)
        .containsExactly(
            "POST /parcels {\"parcel\":{\"title\":\"Seeds\","
                + "\"who\":{\"owner\":\"u-7\",\"at\":{\"town\":\"Tidewrack\"}}}}");
  }

  @Test
  void taskThatIsMadeAlreadyGetsOnlyWhatIsMissing() {
    willAnswer(200, "{}");
    deliver(true, Optional.of("j7"), fields());
    assertThat(seen).containsExactly("PUT /jobs/j7/notes {\"notes\":\"by hand\"}");
  }

  @Test
  void changeMakesOnlyTheCallsThatHaveSomethingToSay() {
    SequencedMap<String, Value> only = new LinkedHashMap<>();
    only.put("notes", Nothing.NOTHING);
    willAnswer(200, "{}");
    deliver(false, Optional.of("j7"), only);
    assertThat(seen).containsExactly("PUT /jobs/j7/notes {\"notes\":null}");
  }

  private TaskGateway.Outcome errand(EffectKind kind, String list, Map<String, Value> held) {
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    fields.put("title", Text.of("Post it"));
    if (!list.isEmpty()) {
      fields.put("list", Text.of(list));
    }
    Optional<String> record = kind == EffectKind.CREATE ? Optional.empty() : Optional.of("e1");
    return system.deliver(
        new TaskGateway.Effect("errands", kind, "key-1", record, fields, held, Optional.empty()),
        made -> {},
        calls::add);
  }

  @Test
  void containerOfATaskStandsInTheAddressAndTheTaskIsChangedWhereItStood() {
    willAnswer(201, "{\"id\":\"e1\"}");
    willAnswer(200, "{}");
    errand(EffectKind.CREATE, "spring / fair", Map.of());
    errand(EffectKind.CHANGE, "", Map.of("list", Text.of("spring / fair")));
    assertThat(seen)
        .containsExactly(
            "POST /lists/spring%20%2F%20fair/errands {\"title\":\"Post it\"}",
            "PATCH /lists/spring%20%2F%20fair/errands/e1 {\"title\":\"Post it\"}");
  }

  /** A step in a path names nothing: RFC 3986 section 5.2.4. */
  @ParameterizedTest
  @CsvSource({
    "'', '', MAPPING_ERROR, has no value",
    "., '', MAPPING_ERROR, would lead elsewhere",
    ".., '', MAPPING_ERROR, would lead elsewhere",
    "autumn, spring, NOT_ALLOWED, cannot be changed from “spring” to “autumn”"
  })
  void addressThatCannotBeIsNotCalled(String list, String held, FailureKind kind, String says) {
    Map<String, Value> held1 = held.isEmpty() ? Map.of() : Map.of("list", Text.of(held));
    EffectKind effect = held.isEmpty() ? EffectKind.CREATE : EffectKind.CHANGE;
    Failure failure = ((TaskGateway.Undelivered) errand(effect, list, held1)).failure();
    assertThat(failure.kind()).isEqualTo(kind);
    assertThat(failure.message()).contains(says);
    assertThat(seen).isEmpty();
  }

  /** Kinds by status as RFC 9110 section 15 describes them. */
  @ParameterizedTest
  @CsvSource({
    "400, VALUE_REFUSED",
    "401, NOT_SIGNED_IN",
    "403, NOT_ALLOWED",
    "404, NOT_FOUND",
    "409, CHANGED_MEANWHILE",
    "412, CHANGED_MEANWHILE",
    "422, VALUE_REFUSED",
    "429, RATE_LIMITED",
    "500, ANSWER_UNKNOWN",
    "502, ANSWER_UNKNOWN",
    "503, ANSWER_UNKNOWN",
    "302, VALUE_REFUSED",
    "0, ANSWER_UNKNOWN"
  })
  void writeThatFailsHasAKind(int status, FailureKind kind) {
    willAnswer(status, "{\"error\":\"told so\",\"field\":\"title\"}");
    Failure failure =
        ((TaskGateway.Undelivered) deliver(true, Optional.empty(), fields())).failure();
    assertThat(failure.kind()).isEqualTo(kind);
    if (status >= 400) {
      assertThat(failure.message()).contains("told so");
    }
    if (kind == FailureKind.VALUE_REFUSED && status >= 400) {
      assertThat(failure.field()).contains("title");
    }
  }

  @Test
  void truncatedAnswerToAWriteIsUnknown() {
    willAnswer(201, "{\"id\":\"j7\",\"ti");
    Failure failure =
        ((TaskGateway.Undelivered) deliver(true, Optional.empty(), fields())).failure();
    assertThat(failure.kind()).isEqualTo(FailureKind.ANSWER_UNKNOWN);
  }

  /** What is gone already counts as taken away, so that a second press does no harm. */
  @Test
  void takingAwayIsDoneOnceAndAgain() {
    for (int status : new int[] {204, 404, 410}) {
      willAnswer(status, "");
      assertThat(system.remove("rounds", "j/1", Optional.empty(), calls::add))
          .as("after " + status)
          .isInstanceOf(TaskGateway.Removed.class);
    }
    assertThat(seen).containsOnly("DELETE /jobs/j%2F1 ");
  }

  @Test
  void whatWasReadBeforeMustNotHaveChangedWhenItIsTakenAway() {
    willAnswer(412, "");
    var changed =
        (TaskGateway.NotRemoved) system.remove("rounds", "j-1", Optional.of("\"7\""), calls::add);
    assertThat(changed.failure().kind()).isEqualTo(FailureKind.CHANGED_MEANWHILE);
    assertThat(calls.getLast().request()).anyMatch(line -> line.contains("If-Match: \"7\""));
  }

  @Test
  void takingAwayThatIsRefusedOrNotAnsweredIsTold() {
    willAnswer(403, "{\"error\":\"not yours\"}");
    var refused =
        (TaskGateway.NotRemoved) system.remove("rounds", "j-1", Optional.empty(), calls::add);
    assertThat(refused.failure().message()).contains("not yours");
    willAnswer(0, "");
    var lost =
        (TaskGateway.NotRemoved) system.remove("rounds", "j-1", Optional.empty(), calls::add);
    assertThat(lost.failure().message()).contains("gave no answer");
  }

  @Test
  void keyGoesInAHeaderAndFieldsWhereTheyBelong() {
    willAnswer(201, "{\"order\":{\"id\":9,\"title\":\"Sweep\"}}");
    assertThat(order(Optional.empty()))
        .isEqualTo(
            new TaskGateway.Delivered("9", Map.of("title", TextNode.valueOf("Sweep")), List.of()));
    assertThat(seen)
        .containsExactly(
            "POST /orders {\"order\":{\"title\":\"Sweep\"}}", "Idempotency-Key: key-1");
  }

  /** RFC 9110 section 13.1.1: If-Match with the tag that was read, as it was written. */
  @Test
  void changeGoesWithTheTagOfWhatWasRead() {
    answers.add(new Answer(200, "{}", Map.of("ETag", "\"v7\"")));
    willAnswer(200, "{}");
    assertThat(order(Optional.of("9"))).isInstanceOf(TaskGateway.Delivered.class);
    assertThat(seen)
        .containsExactly(
            "GET /orders/9 ",
            "PATCH /orders/9 {\"order\":{\"title\":\"Sweep\"}}",
            "If-Match: \"v7\"");
  }

  /** RFC 9110 section 9.3.4: PUT takes the place of all that is there. */
  @Test
  void whatTakesThePlaceOfAllIsSentWholeWithTheChangeInIt() {
    willAnswer(
        200,
        "{\"id\":7,\"title\":\"Rex\",\"tags\":[\"a\"],\"who\":{\"owner\":\"u-1\",\"since\":2}}");
    willAnswer(200, "{}");
    assertThat(pet()).isInstanceOf(TaskGateway.Delivered.class);
    assertThat(seen)
        .containsExactly(
            "GET /pet/7 ",
            "PUT /pet {\"id\":7,\"title\":\"Rex\",\"tags\":[\"a\"],\"who\":{\"owner\":\"u-9\",\"since\":2}}");
    willAnswer(404, "{}");
    var gone = (TaskGateway.Undelivered) pet();
    assertThat(gone.failure().kind()).isEqualTo(FailureKind.NOT_FOUND);
  }

  private TaskGateway.Outcome pet() {
    SequencedMap<String, Value> changed = new LinkedHashMap<>();
    changed.put("owner", Text.of("u-9"));
    var effect =
        new TaskGateway.Effect("pets", EffectKind.CHANGE, "key-1", Optional.of("7"), changed);
    return system.deliver(effect, made -> {}, calls::add);
  }

  @Test
  void changeThatCameInBetweenIsTriedAgainAndARecordWithoutATagIsNamed() {
    answers.add(new Answer(200, "{}", Map.of("ETag", "\"v7\"")));
    willAnswer(412, "{}");
    var meanwhile = (TaskGateway.Undelivered) order(Optional.of("9"));
    assertThat(meanwhile.failure().kind()).isEqualTo(FailureKind.CHANGED_MEANWHILE);
    willAnswer(200, "{}");
    var untagged = (TaskGateway.Undelivered) order(Optional.of("9"));
    assertThat(untagged.failure().message()).contains("no ETag");
  }
}
