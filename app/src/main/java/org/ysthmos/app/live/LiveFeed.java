package org.ysthmos.app.live;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Tells open browsers what changed, as server-sent events; they read the rest by themselves. */
@Component
public class LiveFeed {

  private static final int MOST_LISTENERS = 200;
  private final List<SseEmitter> listeners = new CopyOnWriteArrayList<>();

  /** A connection that is told from now on. */
  public SseEmitter listen() {
    SseEmitter emitter = new SseEmitter(0L);
    if (listeners.size() >= MOST_LISTENERS) {
      listeners.removeFirst().complete();
    }
    listeners.add(emitter);
    emitter.onCompletion(() -> listeners.remove(emitter));
    emitter.onError(broken -> listeners.remove(emitter));
    send(emitter, "hello", Map.of());
    return emitter;
  }

  /** A trace of a bridge changed. */
  public void changed(String bridge, String trace) {
    for (SseEmitter listener : listeners) {
      send(listener, "trace", Map.of("bridge", bridge, "trace", trace));
    }
  }

  /** An event of a collection was received and is kept. */
  public void arrived(String system, String collection) {
    for (SseEmitter listener : listeners) {
      send(listener, "arrival", Map.of("system", system, "collection", collection));
    }
  }

  /** Keeps connections open through anything that closes silent ones. */
  @Scheduled(fixedDelay = 20_000)
  void beat() {
    for (SseEmitter listener : listeners) {
      send(listener, "beat", Map.of());
    }
  }

  private void send(SseEmitter listener, String name, Map<String, String> data) {
    try {
      listener.send(SseEmitter.event().name(name).data(data, MediaType.APPLICATION_JSON));
    } catch (IOException | IllegalStateException gone) {
      // The browser went away, which is its right.
      listeners.remove(listener);
    }
  }
}
