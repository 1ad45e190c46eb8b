package org.ysthmos.standins.hook;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.time.Duration;
import java.time.InstantSource;
import java.util.Base64;
import java.util.HexFormat;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import java.util.logging.Level;
import java.util.logging.Logger;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * Sends webhooks with the headers and the signature of Standard Webhooks 1.0.0: HMAC-SHA256 over
 * {@code id.timestamp.body}. What is not taken with a 2xx is sent again, later each time, as a form
 * system would.
 */
public final class HookSender implements AutoCloseable {

  private static final Logger LOG = Logger.getLogger(HookSender.class.getName());

  /** About a day and a half, as senders of forms go on for days. */
  private static final int TRIES = 2000;

  private static final Duration LONGEST_WAIT = Duration.ofMinutes(1);

  /** A webhook that none overtakes comes all the same. */
  private static final Duration LONGEST_OVERTAKEN = Duration.ofSeconds(10);

  private final HttpClient client =
      HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(5)).build();
  private final ScheduledExecutorService later = Executors.newSingleThreadScheduledExecutor();
  private final InstantSource clock;
  private final Object ended = new Object();
  private int underWay;
  private final Queue<Runnable> overtaken = new ConcurrentLinkedQueue<>();
  private volatile Supplier<HookTrouble> troubles = () -> HookTrouble.NONE;

  public HookSender(InstantSource clock) {
    this.clock = clock;
  }

  /** From now on each webhook is asked for what goes wrong with it. */
  public void troubledBy(Supplier<HookTrouble> asked) {
    this.troubles = asked;
  }

  /** Gives the headers by which a receiver knows who sent a webhook. */
  @FunctionalInterface
  public interface Headers {
    Map<String, String> of(String id, String body);
  }

  /**
   * Queues a webhook signed as Standard Webhooks says; returns at once.
   *
   * @param secret the signing secret, in Base64 behind {@code whsec_}
   */
  public void send(URI to, String secret, String id, String body) {
    send(to, id, body, (sent, text) -> standard(secret, sent, text));
  }

  /** Queues a webhook with headers of the system's own; returns at once. */
  public void send(URI to, String id, String body, Headers headers) {
    HookTrouble trouble = troubles.get();
    int times =
        switch (trouble) {
          case LOST -> 0;
          case NONE, OUT_OF_ORDER -> 1;
          case TWICE -> 2;
        };
    for (int i = 0; i < times; i++) {
      begins();
      Runnable first = () -> attempt(to, id, body, headers, 1);
      if (trouble == HookTrouble.OUT_OF_ORDER) {
        overtaken.add(first);
        ScheduledFuture<?> unused =
            later.schedule(this::sendOvertaken, LONGEST_OVERTAKEN.toSeconds(), TimeUnit.SECONDS);
      } else {
        later.execute(first);
      }
    }
    if (trouble != HookTrouble.OUT_OF_ORDER) {
      later.execute(this::sendOvertaken);
    }
  }

  /** Those that wait to be overtaken are sent now. */
  public void sendWaiting() {
    later.execute(this::sendOvertaken);
  }

  private void sendOvertaken() {
    for (Runnable one = overtaken.poll(); one != null; one = overtaken.poll()) {
      one.run();
    }
  }

  /**
   * Waits until no webhook is under way, but no longer than this.
   *
   * @return how many were neither taken nor given up yet
   */
  public int underWay(Duration longest) {
    long until = System.nanoTime() + longest.toNanos();
    synchronized (ended) {
      long left = longest.toNanos();
      try {
        while (underWay > 0 && left > 0) {
          TimeUnit.NANOSECONDS.timedWait(ended, left);
          left = until - System.nanoTime();
        }
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
      return underWay;
    }
  }

  private void begins() {
    synchronized (ended) {
      underWay++;
    }
  }

  private void ends() {
    synchronized (ended) {
      underWay--;
      ended.notifyAll();
    }
  }

  private Map<String, String> standard(String secret, String id, String body) {
    String timestamp = Long.toString(clock.instant().getEpochSecond());
    return Map.of(
        "webhook-id", id,
        "webhook-timestamp", timestamp,
        "webhook-signature", "v1," + sign(secret, id + "." + timestamp + "." + body));
  }

  private void attempt(URI to, String id, String body, Headers headers, int attempt) {
    HttpRequest.Builder builder =
        HttpRequest.newBuilder(to)
            .timeout(Duration.ofSeconds(10))
            .header("Content-Type", "application/json");
    headers.of(id, body).forEach(builder::header);
    HttpRequest request = builder.POST(HttpRequest.BodyPublishers.ofString(body)).build();
    try {
      int status = client.send(request, HttpResponse.BodyHandlers.discarding()).statusCode();
      if (status / 100 == 2) {
        ends();
        return;
      }
      LOG.log(Level.INFO, "webhook {0} answered {1}", new Object[] {id, status});
    } catch (IOException e) {
      LOG.log(Level.INFO, "webhook {0} not delivered: {1}", new Object[] {id, e.toString()});
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return;
    }
    if (attempt < TRIES) {
      long wait = Math.min(LONGEST_WAIT.toSeconds(), 1L << attempt);
      ScheduledFuture<?> unused =
          later.schedule(() -> attempt(to, id, body, headers, attempt + 1), wait, TimeUnit.SECONDS);
    } else {
      ends();
    }
  }

  static String sign(String secret, String content) {
    byte[] key = Base64.getDecoder().decode(secret.replaceFirst("^whsec_", ""));
    return Base64.getEncoder().encodeToString(hmac(key, content));
  }

  /** HMAC-SHA256 in hexadecimal digits, with the secret's text as the key. */
  public static String hex(String secret, String content) {
    return HexFormat.of().formatHex(hmac(secret.getBytes(StandardCharsets.UTF_8), content));
  }

  private static byte[] hmac(byte[] key, String content) {
    try {
      Mac mac = Mac.getInstance("HmacSHA256");
      mac.init(new SecretKeySpec(key, "HmacSHA256"));
      return mac.doFinal(content.getBytes(StandardCharsets.UTF_8));
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("a webhook cannot be signed", e);
    }
  }

  @Override
  public void close() {
    later.shutdownNow();
    client.close();
  }
}
