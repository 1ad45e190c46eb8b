package org.ysthmos.app.practice;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentSkipListMap;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.document.DocumentNode;

/**
 * The bridges of an installation that are there to practise on. They are held from the start, as
 * what they do is a mistake on purpose.
 */
@Component
public class PracticeBridges {

  private static final String BECAUSE =
      "It is for practice alone. “Practise a runaway” on Systems lets it go";

  private final Bridges bridges;
  private final Map<String, String> documents = new ConcurrentSkipListMap<>();

  PracticeBridges(Bridges bridges) {
    this.bridges = bridges;
  }

  /** One of the setup; it is put to work and held, unless it was before. */
  public void setUp(String document) {
    String id = BridgeReader.read(DocumentNode.parse(document)).id();
    if (bridges.live(id).isEmpty() && bridges.retired(id).isEmpty()) {
      bridges.put(document, By.SETUP);
      boolean unused = bridges.hold(id, BECAUSE, By.SETUP);
    }
    documents.put(id, document);
  }

  /** Their ids, in order. */
  List<String> ids() {
    return List.copyOf(documents.keySet());
  }

  /** Lets all of them go. One that somebody retired is put to work again. */
  void letGo(By by) {
    documents.forEach(
        (id, document) -> {
          if (bridges.live(id).isEmpty()) {
            bridges.put(document, by);
          }
          boolean unused = bridges.release(id, by);
        });
  }
}
