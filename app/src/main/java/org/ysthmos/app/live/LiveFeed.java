package org.ysthmos.app.live;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Tells open browsers what changed, as server-sent events; they read the rest by themselves.
 * Whoever tells only puts it down; each browser is sent to by a thread of its own, so that one that
 * does not read keeps nobody waiting. One that falls far behind is let go, and reads afresh when it
 * connects again.
 */
@Component
public class LiveFeed {

  private static final Logger LOG = LoggerFactory.getLogger(LiveFeed.class);
  private static final int MOST_LISTENERS = 100;
  private static final int LONGEST_QUEUE = 256;

  private record Word(String name, Map<String, String> data) {}

  private final class Listener {
    private final SseEmitter emitter = new SseEmitter(0L);
    private final BlockingQueue<Word> queue = new ArrayBlockingQueue<>(LONGEST_QUEUE);
    private volatile boolean open = true;

    void tell(Word word) {
      if (open && !queue.offer(word)) {
        LOG.info("a browser that does not read what it is told is let go");
        close();
      }
    }

    void send() {
      while (open) {
        try {
          Word word = queue.poll(5, TimeUnit.SECONDS);
          if (word != null) {
            emitter.send(
                SseEmitter.event().name(word.name()).data(word.data(), MediaType.APPLICATION_JSON));
          }
        } catch (IOException | IllegalStateException gone) {
          // The browser went away, which is its right.
          close();
        } catch (InterruptedException unwanted) {
          LOG.warn("the sender to a browser was interrupted and ends");
          close();
        }
      }
    }

    void close() {
      open = false;
      listeners.remove(this);
    }
  }

  private final List<Listener> listeners = new CopyOnWriteArrayList<>();

  /** A connection that is told from now on. */
  public SseEmitter listen() {
    if (listeners.size() >= MOST_LISTENERS) {
      Listener oldest = listeners.removeFirst();
      oldest.close();
      oldest.emitter.complete();
    }
    Listener listener = new Listener();
    listener.emitter.onCompletion(listener::close);
    listener.emitter.onError(broken -> listener.close());
    listener.tell(new Word("hello", Map.of()));
    listeners.add(listener);
    Thread.ofPlatform().name("live").daemon().start(listener::send);
    return listener.emitter;
  }

  /** A trace of a bridge changed. */
  public void changed(String bridge, String trace) {
    tell(new Word("trace", Map.of("bridge", bridge, "trace", trace)));
  }

  /** An event of a collection was received and is kept. */
  public void arrived(String system, String collection) {
    tell(new Word("arrival", Map.of("system", system, "collection", collection)));
  }

  /** Keeps connections open through anything that closes silent ones. */
  @Scheduled(fixedDelay = 20_000)
  void beat() {
    tell(new Word("beat", Map.of()));
  }

  /** How many browsers are told. */
  int listeners() {
    return listeners.size();
  }

  private void tell(Word word) {
    listeners.forEach(listener -> listener.tell(word));
  }
}
