package org.ysthmos.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * The way of one create between two workers and a target that loses requests and answers, writes
 * late, and is asked by workers that die at any line. In every schedule of their steps the effect
 * is made once, or a person is asked; never twice. The schedule of a run comes of its seed.
 */
class LostAnswersProperties {

  private static final int RUNS = 10_000;

  /** How late the target writes at the most, after it was asked. */
  private static final int LATEST_WRITE = 24_000;

  private static final int TIME_OUT = 10_000;
  private static final int LEASE = 10_000;
  private static final Instant START = Instant.parse("2026-11-26T12:00:00Z");

  private final DeliveryRules rules =
      new DeliveryRules(List.of(Duration.ofSeconds(2), Duration.ofSeconds(30)));

  private enum State {
    READY,
    PAUSED,
    SENDING,
    MADE,
    ASKED
  }

  /** What is on the disk. */
  private static final class Row {
    State state = State.READY;
    Doubt doubt = Doubt.NONE;
    int until;
    int claim;
    int claims;
  }

  /** A call under way; its answer comes at a time, or never. */
  private record Call(int claim, int sentAt, int answersAt) {}

  private static final class Target {
    final List<Integer> writes = new ArrayList<>();
    final boolean knowsKeys;

    Target(boolean knowsKeys) {
      this.knowsKeys = knowsKeys;
    }

    long made(int now) {
      long written = writes.stream().filter(at -> at <= now).count();
      return knowsKeys ? Math.min(1, written) : written;
    }
  }

  private final class Run {
    final Random random;
    final Promise promise;
    final Row row = new Row();
    final Target target;
    final Call[] workers = new Call[2];
    int now;

    Run(long seed, Promise promise) {
      this.random = new Random(seed);
      this.promise = promise;
      this.target = new Target(promise == Promise.KNOWN_BY_KEY);
    }

    Instant at(int time) {
      return START.plusMillis(time);
    }

    void go() {
      for (int step = 0;
          step < 400 && row.state != State.MADE && row.state != State.ASKED;
          step++) {
        now += random.nextInt(1500);
        int who = random.nextInt(2);
        if (workers[who] == null) {
          claim(who);
        } else if (random.nextInt(20) == 0) {
          // It dies: nothing of it runs any further, and the row is as it is on the disk.
          workers[who] = null;
        } else {
          goOn(who, workers[who]);
        }
      }
      now += LATEST_WRITE;
    }

    void claim(int who) {
      if (row.state == State.PAUSED && now >= row.until) {
        row.state = State.READY;
      }
      boolean lost = row.state == State.SENDING && now >= row.until;
      if (lost) {
        row.state = State.READY;
        row.doubt = Doubt.since(at(now));
      }
      if (row.state != State.READY) {
        return;
      }
      row.state = State.SENDING;
      row.claim = ++row.claims;
      row.until = now + LEASE;
      decide(who, row.claim, row.doubt);
    }

    void decide(int who, int claim, Doubt doubt) {
      switch (rules.next(EffectKind.CREATE, promise, false, doubt, at(now))) {
        case DeliveryRules.Send send -> workers[who] = send(claim);
        case DeliveryRules.Wait wait -> pause(claim, doubt, wait.until());
        case DeliveryRules.AskAPerson ask -> end(claim, State.ASKED);
        case DeliveryRules.Look look -> {
          boolean found = target.made(now) > 0 && promise != Promise.KNOWN_BY_KEY;
          if (found) {
            end(claim, State.MADE);
          } else {
            decide(who, claim, rules.lookedInVain(doubt));
          }
        }
      }
    }

    Call send(int claim) {
      boolean arrives = random.nextInt(6) > 0;
      int writtenAt = now + (random.nextInt(3) == 0 ? random.nextInt(LATEST_WRITE) : 100);
      if (arrives) {
        target.writes.add(writtenAt);
      }
      boolean answered = arrives && random.nextInt(3) > 0 && writtenAt - now < TIME_OUT;
      return new Call(claim, now, answered ? writtenAt : Integer.MAX_VALUE);
    }

    void goOn(int who, Call call) {
      // Whoever is alive renews his lease.
      if (row.claim == call.claim() && row.state == State.SENDING) {
        row.until = now + LEASE;
      }
      if (now >= call.answersAt()) {
        end(call.claim(), State.MADE);
        workers[who] = null;
      } else if (now >= call.sentAt() + TIME_OUT) {
        pause(call.claim(), Doubt.since(at(now)), at(now).plusSeconds(2));
        workers[who] = null;
      }
    }

    void pause(int claim, Doubt doubt, Instant until) {
      if (holds(claim)) {
        row.state = State.PAUSED;
        row.doubt = doubt;
        row.until = (int) Duration.between(START, until).toMillis();
      }
    }

    void end(int claim, State state) {
      if (holds(claim)) {
        row.state = state;
      }
    }

    boolean holds(int claim) {
      return row.state == State.SENDING && row.claim == claim;
    }
  }

  @ParameterizedTest
  @EnumSource(Promise.class)
  void isMadeOnceOrAskedAndNeverTwice(Promise promise) {
    int made = 0;
    for (long seed = 0; seed < RUNS; seed++) {
      Run run = new Run(seed, promise);
      run.go();
      assertThat(run.row.state).as("%s, seed %s ends", promise, seed).isIn(State.MADE, State.ASKED);
      assertThat(run.target.made(run.now)).as("%s, seed %s", promise, seed).isLessThanOrEqualTo(1);
      if (run.row.state == State.MADE) {
        made++;
        assertThat(run.target.made(run.now)).as("%s, seed %s", promise, seed).isEqualTo(1);
      }
    }
    // Where it can be told what was made, nobody is ever asked.
    if (promise == Promise.FOUND_BY_KEY || promise == Promise.KNOWN_BY_KEY) {
      assertThat(made).isEqualTo(RUNS);
    } else {
      assertThat(made).isBetween(RUNS / 4, RUNS - 1);
    }
  }
}
