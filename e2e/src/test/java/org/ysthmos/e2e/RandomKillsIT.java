package org.ysthmos.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/**
 * Kills at moments that a seed chooses, under load by each sort of system, with faults on, the
 * clock stepping, and where a small disk is given, that being filled. A few here; {@code
 * bench/kill} makes two hundred.
 */
class RandomKillsIT {

  /** A fault, and the system it befalls. */
  private record Fault(String at, String kind, String method, String below) {}

  private static final List<String> TROUBLES =
      List.of("error", "answer-lost", "slow", "slow-answer", "too-many", "down", "truncated");

  /** Longer than the application waits for an answer. */
  private static final int HANGS = 12_000;

  private static final Optional<Path> DISK =
      Optional.ofNullable(System.getProperty("disk")).map(Path::of);

  private static final Together TOGETHER =
      new Together("--ysthmos.settable-clock=true") {
        @Override
        Path home() {
          return DISK.orElseGet(super::home);
        }
      };

  private final Random random = new Random(Long.getLong("seed", 20261126L));
  private final List<Item> items = new ArrayList<>();

  /** Something that must become one task. */
  private record Item(Arrival arrival, String id) {
    boolean isComplete() {
      return arrival.isComplete(TOGETHER, id);
    }

    long made() {
      return arrival.tasks(TOGETHER, id).count();
    }
  }

  @AfterAll
  static void stop() {
    TOGETHER.close();
  }

  @Test
  void nothingIsLostAndNothingDoubledWheneverItIsKilled() {
    int kills = Integer.getInteger("kills", 3);
    TOGETHER.noCeilings();
    TOGETHER.awaitAsked();
    for (Arrival arrival : Arrival.values()) {
      arrive(arrival);
    }
    int filled = 0;
    for (int round = 0; round < kills; round++) {
      Fault fault = fault();
      int wait = random.nextInt(8) == 0 ? HANGS : random.nextInt(3000);
      TOGETHER.fault(fault.at(), fault.kind(), fault.method(), fault.below(), calls(), wait);
      boolean full = DISK.isPresent() && random.nextInt(8) == 0;
      if (full) {
        filled++;
        SmallDisk.fill(DISK.get(), random.nextInt(5) * 10_000_000L);
      }
      for (int i = random.nextInt(4); i >= 0; i--) {
        arrive(Arrival.values()[random.nextInt(Arrival.values().length)]);
      }
      if (!full && random.nextInt(4) == 0) {
        // A day ahead, and back again with the next start.
        TOGETHER.clock(Instant.now().plus(Duration.ofDays(1)));
      }
      pause(random.nextInt(1500));
      TOGETHER.kill();
      DISK.ifPresent(SmallDisk::free);
      TOGETHER.restart();
      if (kills > 20 && round % 10 == 9) {
        System.out.printf(
            "kills: %d, arrived: %d, disk full: %d%n", round + 1, items.size(), filled);
      }
    }
    TOGETHER.clearFaults();
    TOGETHER.askAll();
    List<Item> open = openAfter(Duration.ofMinutes(4));
    // While the clock was a day ahead, a target may have forgotten a key: that is for a person.
    List<Item> asked = open.stream().filter(item -> TOGETHER.isAskedOfAPerson(item.id())).toList();
    open.removeAll(asked);
    List<Item> doubled = items.stream().filter(item -> item.made() > 1).toList();
    System.out.printf(
        "kills: %d, arrived: %d (%s), disk full: %d, asked of a person: %d, lost or stuck: %d,"
            + " doubled: %d%n",
        kills, items.size(), byArrival(), filled, asked.size(), open.size(), doubled.size());
    assertThat(asked.size()).isLessThanOrEqualTo(kills / 10);
    assertThat(open).as(this::stories).isEmpty();
    assertThat(doubled).isEmpty();
  }

  private void arrive(Arrival arrival) {
    items.add(new Item(arrival, arrival.send(TOGETHER, items.size())));
  }

  private int calls() {
    return 1 + random.nextInt(3);
  }

  private Fault fault() {
    String trouble = TROUBLES.get(random.nextInt(TROUBLES.size()));
    String write = random.nextBoolean() ? "POST" : "PUT";
    return switch (random.nextInt(8)) {
      case 0 -> new Fault(TOGETHER.deskAddress(), "hook-twice", "", "");
      case 1 -> new Fault(TOGETHER.deskAddress(), "hook-out-of-order", "", "");
      case 2 -> new Fault(TOGETHER.address("works-ledger"), trouble, "POST", "/api/jobs");
      case 3 -> new Fault(TOGETHER.address("climate-desk"), trouble, "PATCH", "/api/tickets");
      case 4 -> new Fault(TOGETHER.friendsAddress(), trouble, "GET", "/api/pledges");
      case 5 -> new Fault(TOGETHER.address("leaf-library"), trouble, "PROPFIND", "/dav");
      default -> new Fault(TOGETHER.boardAddress(), trouble, write, "/api");
    };
  }

  /** What is not complete in time. */
  private List<Item> openAfter(Duration longest) {
    List<Item> open = new ArrayList<>(items);
    long until = System.nanoTime() + longest.toNanos();
    while (!open.isEmpty() && System.nanoTime() < until) {
      open.removeIf(Item::isComplete);
      pause(200);
    }
    return open;
  }

  private Map<Arrival, Long> byArrival() {
    return items.stream().collect(Collectors.groupingBy(Item::arrival, Collectors.counting()));
  }

  private String stories() {
    return items.stream()
        .filter(item -> !item.isComplete())
        .map(item -> item.arrival() + " " + TOGETHER.told(item.id()))
        .collect(Collectors.joining("\n"));
  }

  /** How long a round lasts is what the seed chooses; nothing is waited for. */
  private static void pause(int millis) {
    try {
      Thread.sleep(millis);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }
}
