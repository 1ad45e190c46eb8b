package org.ysthmos.app.rehearsal;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.springframework.stereotype.Component;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.store.PackedJson;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.rehearsal.AnswersJson;
import org.ysthmos.core.text.Digest;

/** What a rehearsal asks now: each question once, however often it is asked. */
final class AskedNow extends PastWorld {

  /** After so many questions in a row that were not answered, the others are not asked. */
  static final int MOST_UNANSWERED = 20;

  private static final Duration LONGEST_PAUSE = Duration.ofSeconds(2);

  /** Nothing more can be asked; the message says why. */
  static final class NotAnswered extends IllegalStateException {
    NotAnswered(String message) {
      super(message);
    }
  }

  /** What a rehearsal is stopped with while it waits. */
  static final class Stopped extends IllegalStateException {}

  /** Where it finds what it asks. */
  @Component
  record Sources(
      SampleWorld sample,
      Systems systems,
      ReceivedEvents received,
      Pairs pairs,
      RehearsalMapper mapper,
      Journal journal) {}

  private final Sources sources;
  private final long rehearsal;
  private final BooleanSupplier goesOn;
  private int unanswered;

  /**
   * @param goesOn whether the rehearsal is to go on, asked while it waits
   */
  AskedNow(Sources sources, long rehearsal, BooleanSupplier goesOn) {
    super(sources);
    this.sources = sources;
    this.rehearsal = rehearsal;
    this.goesOn = goesOn;
  }

  @Override
  public LookupAnswer lookUp(String lookup, Question question) {
    String key = Digest.sha256(AnswersJson.write(question).toString());
    RehearsalMapper.AnswerRow known = sources.mapper().answer(rehearsal, key);
    if (known != null) {
      List<JsonNode> records = new ArrayList<>();
      PackedJson.unpack(known.answer()).forEach(records::add);
      return new Found(records);
    }
    LookupAnswer answer = asked(question);
    if (answer instanceof Found found) {
      unanswered = 0;
      ArrayNode records = JsonNodeFactory.instance.arrayNode().addAll(found.records());
      byte[] packed = PackedJson.pack(records);
      sources.journal().runSoon(() -> sources.mapper().keepAnswer(rehearsal, key, packed));
    } else if (++unanswered >= MOST_UNANSWERED) {
      throw new NotAnswered(
          "%d questions in a row were not answered, the last: %s"
              .formatted(unanswered, ((Unanswered) answer).failure().message()));
    }
    return answer;
  }

  /** Where its system's limit leaves no room for a call it is waited for. */
  private LookupAnswer asked(Question question) {
    while (goesOn.getAsBoolean()) {
      LookupAnswer answer = sources.sample().ask(question);
      Optional<Failure> noRoom =
          answer instanceof Unanswered none && none.failure().noRoom()
              ? Optional.of(none.failure())
              : Optional.empty();
      if (noRoom.isEmpty()) {
        return answer;
      }
      Duration wait = noRoom.get().retryAfter().orElse(LONGEST_PAUSE);
      pause(wait.compareTo(LONGEST_PAUSE) > 0 ? LONGEST_PAUSE : wait);
    }
    throw new Stopped();
  }

  private static void pause(Duration wait) {
    try {
      TimeUnit.NANOSECONDS.sleep(wait.toNanos() + 1);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new Stopped();
    }
  }
}
