package org.ysthmos.app.installation;

import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.bridge.Loops;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.document.DocumentNode;

/** The bridges that are at work, but for those that are there to practise on. */
@Component
@Order(4)
class BridgeSort extends FolderSort {

  static final String FOLDER = "bridges/";
  private static final String BECAUSE = "It is not in the folder that was applied";

  private final Bridges bridges;
  private final Loops loops;
  private final TraceQueue traces;
  private final DeliveryQueue deliveries;

  BridgeSort(Bridges bridges, Loops loops, TraceQueue traces, DeliveryQueue deliveries) {
    super(FOLDER);
    this.bridges = bridges;
    this.loops = loops;
    this.traces = traces;
    this.deliveries = deliveries;
  }

  @Override
  public SortedMap<String, String> here() {
    SortedMap<String, String> here = new TreeMap<>();
    for (Bridges.Live live : bridges.live()) {
      if (live.hold().filter(Bridges.Hold::bySetup).isEmpty()) {
        here.put(path(live.version().definition().id()), live.document());
      }
    }
    bridges.broken().forEach(one -> here.put(path(one.id()), one.document()));
    return here;
  }

  @Override
  public String asExported(String path, String text) {
    requireCalled(BridgeReader.read(DocumentNode.parse(text)).id(), path);
    return text;
  }

  @Override
  public Optional<String> obstacle(String path) {
    String id = id(path);
    if (!bridges.isHeld(id)) {
      return Optional.of("hold it first, so that nothing of it is under way when it is retired");
    }
    int open = deliveries.ofBridge(id);
    return open == 0
        ? Optional.empty()
        : Optional.of(
            "%d of its deliveries are decided and not made; release it until they are"
                .formatted(open));
  }

  /** How many events wait for a bridge, and pass by once it is retired. */
  int waiting(String path) {
    return traces.waiting(id(path));
  }

  /** Circles in which a bridge would feed itself without end, or may. */
  Optional<String> circle(BridgeVersion version) {
    return loops.of(version).stream()
        .filter(circle -> !circle.stops())
        .findFirst()
        .map(circle -> circle.sentence() + " Put it to work on the desk if it is to be so");
  }

  @Override
  public void put(String path, String text, By by) {
    BridgeVersion unused = loops.putToWork(text, false, by);
  }

  @Override
  public void remove(String path, By by) {
    Optional<String> obstacle = obstacle(path);
    if (obstacle.isPresent() || !bridges.retire(id(path), BECAUSE, by)) {
      throw new IllegalStateException(path + ": " + obstacle.orElse("it was released meanwhile"));
    }
  }
}
