package org.ysthmos.bench.load;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.function.IntSupplier;
import javax.sql.DataSource;

/**
 * Measures acknowledging, the whole path and the data file, each against a yardstick in the same
 * run. Prints lines {@code name: value unit (ratio)}.
 */
public final class Load {

  private static final int PAGE = 500;

  private Load() {}

  public static void main(String[] arguments) throws Exception {
    String what = arguments[0];
    Path setup = Path.of(arguments[1]);
    Path data = Path.of(arguments[2]);
    switch (what) {
      case "ack" -> ack(setup, data);
      case "path" -> path(setup, data, Integer.parseInt(arguments[3]));
      case "quiet" -> quiet(setup, data);
      case "file" -> file(setup, data);
      case "pages" -> pages(setup, data);
      case "check" -> FullCheckLoad.run(setup, data, Integer.parseInt(arguments[3]));
      default ->
          throw new IllegalArgumentException(
              "ack, path, quiet, file, pages or check, found " + what);
    }
    System.exit(0);
  }

  private static void say(String line) {
    System.out.println(line);
  }

  private static void ack(Path setup, Path data) {
    try (Running running = new Running(data, setup)) {
      GroupCommits bare = new GroupCommits(running.context.getBean(DataSource.class), running);
      running.sendAll(32, 4_000);
      bare.write(32, 4_000);
      bare.writeEachAlone(32, 1_000);
      awaitIdle(running);
      List<Double> ratios = new ArrayList<>();
      List<Double> grouped = new ArrayList<>();
      for (int round = 0; round < 3; round++) {
        int count = 6_000;
        double batches = count / bare.write(32, count);
        double commits = count / 2.0 / bare.writeEachAlone(32, count / 2);
        double live = count / running.sendAll(32, count);
        awaitIdle(running);
        running.hold(true);
        double held = count / running.sendAll(32, count);
        running.hold(false);
        awaitIdle(running);
        ratios.add(live / commits);
        grouped.add(live / batches);
        say("bare commits, 32 senders through the pool: %.0f a second".formatted(commits));
        say("bare batches of one writer: %.0f a second".formatted(batches));
        say("acknowledged, bridge held: %.0f a second (%.2f)".formatted(held, held / commits));
        say("acknowledged, bridge live: %.0f a second (%.2f)".formatted(live, live / commits));
      }
      Collections.sort(ratios);
      Collections.sort(grouped);
      say(
          "acknowledged live against bare commits, median: %.2f (ratio, goal >= 0.6)"
              .formatted(ratios.get(1)));
      say("acknowledged live against bare batches, median: %.2f (ratio)".formatted(grouped.get(1)));
    }
  }

  /** What a poll keeps, page by page, while its bridge is held. */
  private static void pages(Path setup, Path data) {
    try (Running running = new Running(data, setup)) {
      GroupCommits bare = new GroupCommits(running.context.getBean(DataSource.class), running);
      running.hold(true);
      running.takeIn(5_000);
      bare.pages(5_000, PAGE);
      int count = 100_000;
      double yardstick = bare.pages(count, PAGE);
      double kept = running.takeIn(count);
      say("bare inserts of %,d events in pages of %d: %.1f s".formatted(count, PAGE, yardstick));
      say(
          "kept by intake in pages of %d: %.1f s (%.1f, goal <= 3)"
              .formatted(PAGE, kept, kept / yardstick));
    }
  }

  private static void awaitIdle(Running running) {
    while (running.waiting() > 0) {
      pause(50);
    }
  }

  static void pause(long millis) {
    try {
      Thread.sleep(millis);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  private static void path(Path setup, Path data, int backlog) {
    try (Running running = new Running(data, setup)) {
      running.takeIn(8_000);
      awaitIdle(running);
      running.hold(true);
      running.takeIn(backlog);
      long before = running.target.calls();
      IntSupplier done = () -> (int) (running.target.calls() - before);
      long began = System.nanoTime();
      running.hold(false);
      int tenthOf = backlog / 10;
      List<Double> tenths = new ArrayList<>();
      long last = began;
      for (int tenth = 1; tenth <= 10; tenth++) {
        while (done.getAsInt() < tenthOf * tenth) {
          pause(5);
        }
        long now = System.nanoTime();
        tenths.add((double) tenthOf / ((now - last) / 1e9));
        last = now;
      }
      double rate = backlog / ((System.nanoTime() - began) / 1e9);
      awaitIdle(running);
      say("whole path, backlog %,d: %.0f a second".formatted(backlog, rate));
      say(
          "by tenths of it: %s a second (last against first %.2f)"
              .formatted(
                  tenths.stream().map(one -> "%.0f".formatted(one)).toList(),
                  tenths.getLast() / tenths.getFirst()));
      say("data file after it: %,.1f MB".formatted(running.fileBytes() / 1e6));
      pause(20_000);
      say("data file after 20 s of rest: %,.1f MB".formatted(running.fileBytes() / 1e6));
    }
  }

  private static void quiet(Path setup, Path data) {
    try (Running running = new Running(data, setup)) {
      running.takeIn(3_000);
      awaitIdle(running);
      List<Double> millis = new ArrayList<>();
      for (int i = 0; i < 600; i++) {
        long before = running.target.calls();
        long sent = System.nanoTime() + running.send() * 0;
        while (running.target.calls() == before) {
          Thread.onSpinWait();
        }
        millis.add((System.nanoTime() - sent) / 1e6);
        pause(20);
      }
      Collections.sort(millis);
      say("acknowledged to task, quiet, median: %.1f ms (goal <= 30)".formatted(millis.get(300)));
      say("acknowledged to task, quiet, 99th: %.1f ms (goal <= 150)".formatted(millis.get(594)));
    }
  }

  /** Ten events a second, then what the same data takes when it is compacted. */
  private static void file(Path setup, Path data) throws Exception {
    int seconds = Integer.getInteger("seconds", 240);
    long most = 0;
    try (Running running = new Running(data, setup)) {
      for (int second = 0; second < seconds; second++) {
        long began = System.nanoTime();
        for (int i = 0; i < 10; i++) {
          running.send();
          pause(Math.max(0, 100L * (i + 1) - (System.nanoTime() - began) / 1_000_000));
        }
        most = Math.max(most, running.fileBytes());
        if (second % 20 == 19) {
          say("after %,d events: %,.1f MB".formatted((second + 1) * 10, running.fileBytes() / 1e6));
        }
      }
      pause(10_000);
      say("idle for 10 s: %,.1f MB".formatted(running.fileBytes() / 1e6));
    }
    String url = "jdbc:h2:file:" + data.resolve("ysthmos");
    try (Connection connection = DriverManager.getConnection(url, "ysthmos", "");
        Statement statement = connection.createStatement()) {
      statement.execute("SHUTDOWN COMPACT");
    }
    long compacted = Files.size(data.resolve("ysthmos.mv.db"));
    say("compacted: %,.1f MB".formatted(compacted / 1e6));
    say(
        "the file at its largest against compacted: %s (ratio, goal <= 2)"
            .formatted(String.format(Locale.ENGLISH, "%.1f", (double) most / compacted)));
  }
}
