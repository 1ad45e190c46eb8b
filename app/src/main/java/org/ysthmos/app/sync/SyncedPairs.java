package org.ysthmos.app.sync;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Component;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.sync.SyncedMapper.DisagreementRow;
import org.ysthmos.app.sync.SyncedMapper.SendingRow;
import org.ysthmos.app.sync.SyncedMapper.SyncedRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.decide.World.Unnamed;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Answer;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.OnceWritten;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueJson;

/** Reads and keeps pairs of tasks that are kept alike. */
@Component
public class SyncedPairs {

  /**
   * A pair as a decision saw it; revision 0 means that there was none.
   *
   * @param pair empty if there was none
   */
  public record Seen(int revision, Optional<SyncedPair> pair) {
    public static final Seen NONE = new Seen(0, Optional.empty());
  }

  /** What a decision comes to for a pair, with what it came of. */
  public record Looked(Synced synced, Seen seen, String title, long eventSeq, long traceSeq) {}

  /** What is on its way to a side of a pair. */
  public record Sending(
      long delivery, String bridge, String pair, Side side, Optional<String> tag) {}

  /** So many that were never answered for are held against what is told. */
  private static final int MOST_UNNAMED = 100;

  private final SyncedMapper mapper;
  private final ObjectMapper json;
  private final AppClock clock;

  SyncedPairs(SyncedMapper mapper, ObjectMapper json, AppClock clock) {
    this.mapper = mapper;
    this.json = json;
    this.clock = clock;
  }

  /** The pair of a task, as it is. */
  public Seen find(String bridge, Side side, String record) {
    SyncedRow row = mapper.of(bridge, side, record);
    return row == null ? Seen.NONE : new Seen(row.revision(), Optional.of(pair(row)));
  }

  /** Some pairs of a bridge that are not parted. */
  public List<SyncedPair> some(String bridge, int most) {
    return mapper.some(bridge, most).stream().map(this::pair).toList();
  }

  private SyncedPair pair(SyncedRow row) {
    Map<String, Answer> answers = new HashMap<>();
    for (DisagreementRow one : mapper.disagreementsOf(row.bridgeId(), row.pairHash())) {
      byte[] answer = one.answer();
      if (answer != null) {
        answers.put(one.field(), AnswerJson.read(answer, json));
      }
    }
    return new SyncedPair(
        new MatchKey(row.bridgeId(), row.pairText(), row.pairHash()),
        new Both<>(Optional.ofNullable(row.leftRecord()), Optional.ofNullable(row.rightRecord())),
        agreed(row),
        answers,
        Optional.ofNullable(row.partedBecause()));
  }

  /** The fields of a pair of which a person has not said yet what is right. */
  public Set<String> asked(String bridge, String pair) {
    return mapper.disagreementsOf(bridge, pair).stream()
        .filter(row -> row.answer() == null)
        .map(DisagreementRow::field)
        .collect(Collectors.toSet());
  }

  private Agreed agreed(SyncedRow row) {
    return new Agreed(KeptFields.read(row.agreedLeft()), KeptFields.read(row.agreedRight()));
  }

  /**
   * Keeps what a decision comes to; inside the change that stores it.
   *
   * @param writes whether anything is written to a side
   * @return false if another changed the pair since it was seen
   */
  public boolean keep(Looked looked, boolean writes) {
    Synced synced = looked.synced();
    // What is done last must be done first: until then both are a pair.
    Optional<String> parted = synced.parted().filter(why -> !writes);
    Instant now = clock.instant();
    SyncedRow row =
        new SyncedRow(
            synced.key().bridge(),
            synced.key().hash(),
            Words.limited(synced.key().text(), 1000),
            looked.title(),
            synced.records().left().orElse(null),
            synced.records().right().orElse(null),
            bytes(synced.agreed().left()),
            bytes(synced.agreed().right()),
            writes ? OnceWrittenJson.write(synced.onceWritten(), json) : null,
            parted.map(why -> now).orElse(null),
            parted.map(why -> Words.limited(why, 1000)).orElse(null),
            1,
            now,
            now,
            looked.eventSeq(),
            looked.traceSeq());
    if (looked.seen().revision() == 0) {
      try {
        mapper.begin(row);
      } catch (DuplicateKeyException anotherWasFirst) {
        return false;
      }
    } else if (mapper.looked(row, looked.seen().revision()) != 1) {
      return false;
    }
    disagreements(synced, looked.traceSeq(), now);
    return true;
  }

  /**
   * Leaves a task of a side as it is, as a pair of its own: nothing is made of it on the other
   * side, whatever becomes of it. Inside a change.
   *
   * @return false if it is in a pair
   */
  public boolean leaveAlone(String bridge, Side side, String record, String title, By by) {
    Instant now = clock.instant();
    MatchKey key = Synced.key(bridge, side, record);
    byte[] nothing = bytes(Map.of());
    try {
      mapper.begin(
          new SyncedRow(
              bridge,
              key.hash(),
              key.text(),
              title,
              side == Side.LEFT ? record : null,
              side == Side.RIGHT ? record : null,
              nothing,
              nothing,
              null,
              now,
              "a %s said that it is left as it is".formatted(by.name()),
              1,
              now,
              now,
              0,
              0));
      return true;
    } catch (DuplicateKeyException inAPair) {
      return false;
    }
  }

  private byte[] bytes(Map<String, Value> values) {
    Map<String, Value> given = new HashMap<>(values);
    given.values().removeIf(value -> value == Nothing.NOTHING);
    return KeptFields.write(given);
  }

  /** Those that are there no more are settled; one that stays is asked as it stands now. */
  private void disagreements(Synced synced, long traceSeq, Instant now) {
    Map<String, DisagreementRow> before = new HashMap<>();
    mapper
        .disagreementsOf(synced.key().bridge(), synced.key().hash())
        .forEach(row -> before.put(row.field(), row));
    for (Synced.Disagreement one : synced.conflicts()) {
      DisagreementRow known = before.remove(one.field());
      DisagreementRow row =
          new DisagreementRow(
              known == null ? 0 : known.id(),
              synced.key().bridge(),
              synced.key().hash(),
              one.field(),
              Words.limited(one.because(), 1000),
              both(one.before()),
              both(one.now()),
              known == null ? now : known.since(),
              traceSeq,
              null,
              null);
      if (known == null) {
        mapper.disagree(row);
      } else if (known.answer() != null || !same(known, row)) {
        mapper.disagreeStill(row);
      }
    }
    before.values().forEach(row -> mapper.settled(row.id()));
  }

  private static boolean same(DisagreementRow known, DisagreementRow row) {
    return Arrays.equals(known.nowValues(), row.nowValues())
        && known.because().equals(row.because());
  }

  private byte[] both(Both<Value> values) {
    ObjectNode node = json.createObjectNode();
    for (Side side : Side.values()) {
      node.set(Synced.word(side), ValueJson.write(values.of(side)));
    }
    return node.toString().getBytes(StandardCharsets.UTF_8);
  }

  /** Values of both sides, as a disagreement keeps them. */
  Both<Value> both(byte[] kept) {
    try {
      var node = json.readTree(kept);
      return Both.by(side -> ValueJson.read(node.path(Synced.word(side))));
    } catch (IOException e) {
      throw new UncheckedIOException("kept values of both sides cannot be read", e);
    }
  }

  /** Notes what is on its way to a side; inside the change that stores the delivery. */
  public void sends(long delivery, Synced synced, Side side, Optional<String> tag) {
    mapper.sends(
        new SendingRow(
            delivery,
            synced.key().bridge(),
            synced.key().hash(),
            side,
            tag.filter(text -> text.length() <= 1000).orElse(null)));
  }

  /** What a delivery is of a pair that is kept alike; empty if it is of another bridge. */
  public Optional<Sending> sending(long delivery) {
    return Optional.ofNullable(mapper.sending(delivery))
        .map(
            row ->
                new Sending(
                    row.deliverySeq(),
                    row.bridgeId(),
                    row.pairHash(),
                    row.side(),
                    Optional.ofNullable(row.tag())));
  }

  /** What both of a pair agreed on last; nothing of one that is not kept any more. */
  Agreed agreed(Sending sending) {
    SyncedRow row = mapper.pair(sending.bridge(), sending.pair());
    return row == null ? new Agreed(Map.of(), Map.of()) : agreed(row);
  }

  /** The fields whose values a side is to tell once it is written. */
  Set<String> wanted(Sending sending) {
    SyncedRow row = mapper.pair(sending.bridge(), sending.pair());
    byte[] kept = row == null ? null : row.onceWritten();
    return kept == null ? Set.of() : OnceWrittenJson.read(kept, json).wanted(sending.side());
  }

  /** The task of a side may exist, though no answer said so; inside a change. */
  public void unnamed(Sending sending, byte[] fields) {
    mapper.unnamed(sending.bridge(), sending.side(), sending.pair(), fields, sending.delivery());
  }

  /** Tasks of a side that may exist though no answer said so, the first sent first. */
  public List<Unnamed> unnamed(String bridge, Side side) {
    return mapper.unnamedOf(bridge, side, MOST_UNNAMED).stream()
        .flatMap(
            row ->
                Stream.ofNullable(side == Side.LEFT ? row.rightRecord() : row.leftRecord())
                    .map(partner -> new Unnamed(partner, KeptFields.read(row.fields()))))
        .toList();
  }

  /** A task of a side is known by its id now; inside a change. */
  public void named(String bridge, Side side, String pair) {
    mapper.named(bridge, side, pair);
  }

  /**
   * The task of a side exists now; inside a change.
   *
   * @throws InAnotherPair if it stands for another task
   */
  public void made(Sending sending, String record) {
    SyncedRow other = mapper.of(sending.bridge(), sending.side(), record);
    if (other != null && !other.pairHash().equals(sending.pair())) {
      throw new InAnotherPair(record, other.record(sending.side().across()));
    }
    mapper.named(sending.bridge(), sending.side(), sending.pair());
    if (sending.side() == Side.LEFT) {
      mapper.madeLeft(sending.bridge(), sending.pair(), record);
    } else {
      mapper.madeRight(sending.bridge(), sending.pair(), record);
    }
  }

  /**
   * A delivery to a side was made; inside the change that ends it.
   *
   * @param stored what that side holds now, by the names of the fields, as far as it is known
   */
  public void written(Sending sending, Map<String, Value> stored) {
    ended(sending, once -> once.written(sending.side(), stored));
  }

  /** A delivery to a side was not made; inside the change that ends it. */
  public void notWritten(Sending sending) {
    ended(sending, once -> once.notWritten(sending.side()));
  }

  private void ended(Sending sending, UnaryOperator<OnceWritten> how) {
    mapper.sent(sending.delivery());
    SyncedRow row = mapper.pair(sending.bridge(), sending.pair());
    byte[] kept = row == null ? null : row.onceWritten();
    if (row == null || kept == null) {
      return;
    }
    OnceWritten once = how.apply(OnceWrittenJson.read(kept, json));
    Agreed agreed = once.isOver() ? once.agreed(agreed(row)) : agreed(row);
    Instant now = clock.instant();
    mapper.written(
        row.bridgeId(),
        row.pairHash(),
        bytes(agreed.left()),
        bytes(agreed.right()),
        once.isOver() ? null : OnceWrittenJson.write(once, json),
        now);
    if (once.isOver()) {
      once.parts()
          .ifPresent(
              why -> mapper.part(row.bridgeId(), row.pairHash(), Words.limited(why, 1000), now));
    }
  }
}
