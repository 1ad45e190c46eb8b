package org.ysthmos.app.installation;

import java.util.List;
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
class BridgeSort implements Sort {

  static final String FOLDER = "bridges/";
  static final String ENDING = ".yaml";
  private static final String BECAUSE = "It is not in the folder that was applied";

  private final Bridges bridges;
  private final Loops loops;
  private final TraceQueue traces;
  private final DeliveryQueue deliveries;

  BridgeSort(Bridges bridges, Loops loops, TraceQueue traces, DeliveryQueue deliveries) {
    this.bridges = bridges;
    this.loops = loops;
    this.traces = traces;
    this.deliveries = deliveries;
  }

  static String id(String path) {
    return Paths.id(path, FOLDER, ENDING);
  }

  @Override
  public boolean owns(String path) {
    return Paths.isIn(path, FOLDER, ENDING);
  }

  @Override
  public SortedMap<String, String> here() {
    SortedMap<String, String> here = new TreeMap<>();
    for (Bridges.Live live : bridges.live()) {
      if (live.hold().filter(Bridges.Hold::bySetup).isEmpty()) {
        here.put(FOLDER + live.version().definition().id() + ENDING, live.document());
      }
    }
    bridges.broken().forEach(one -> here.put(FOLDER + one.id() + ENDING, one.document()));
    return here;
  }

  @Override
  public String asExported(String path, String text) {
    Paths.requireCalled(BridgeReader.read(DocumentNode.parse(text)).id(), id(path));
    return text;
  }

  /** What differs in its rules is said once both are compiled. */
  @Override
  public List<String> differences(String path, String before, String after) {
    return Paths.lines(before, after);
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
