package org.ysthmos.app.bridge;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.shape.Shapes;

/** The live bridges, each compiled once. */
@Component
public class Bridges {

  private static final Logger LOG = LoggerFactory.getLogger(Bridges.class);

  /**
   * A live version with the document it was compiled from.
   *
   * @param hold why nothing is delivered just now; empty if it is
   */
  public record Live(BridgeVersion version, String document, Instant since, Optional<Hold> hold) {}

  /** A bridge keeps receiving and delivers nothing. */
  public record Hold(Instant since, String because) {}

  private final BridgeMapper mapper;
  private final EngineCatalog catalog;
  private final AppClock clock;
  private final TransactionTemplate transaction;
  private volatile Map<String, Live> live = Map.of();

  Bridges(
      BridgeMapper mapper, EngineCatalog catalog, AppClock clock, TransactionTemplate transaction) {
    this.mapper = mapper;
    this.catalog = catalog;
    this.clock = clock;
    this.transaction = transaction;
    reload();
  }

  private void reload() {
    Map<String, Live> fresh = new LinkedHashMap<>();
    for (BridgeMapper.LiveRow row : mapper.live()) {
      try {
        BridgeVersion version = BridgeCompiler.compile(row.document(), row.number(), catalog);
        fresh.put(row.bridgeId(), new Live(version, row.document(), row.madeAt(), hold(row)));
      } catch (DocumentException e) {
        // One bridge that no longer fits its systems must not keep the others from working.
        LOG.error("bridge {} cannot be used: {}", row.bridgeId(), e.getMessage());
      }
    }
    live = fresh;
  }

  private static Optional<Hold> hold(BridgeMapper.LiveRow row) {
    return Optional.ofNullable(row.heldAt())
        .map(since -> new Hold(since, Optional.ofNullable(row.heldBecause()).orElse("")));
  }

  public List<Live> live() {
    return List.copyOf(live.values());
  }

  public Optional<Live> live(String id) {
    return Optional.ofNullable(live.get(id));
  }

  /** A version as it was put to work. */
  public record Kept(int number, String document, Instant madeAt) {}

  /** All versions of a bridge, newest first. */
  public List<Kept> versions(String id) {
    return mapper.versions(id).stream()
        .map(row -> new Kept(row.number(), row.document(), row.madeAt()))
        .toList();
  }

  /**
   * The live bridges that could not be used any more if collections were other than they are.
   *
   * @return the name of each to why
   */
  public Map<String, String> brokenBy(Shapes shapes) {
    Catalog changed = catalog.with(shapes);
    Map<String, String> broken = new LinkedHashMap<>();
    for (Live one : live.values()) {
      try {
        BridgeVersion unused =
            BridgeCompiler.compile(one.document(), one.version().number(), changed);
      } catch (DocumentException e) {
        broken.put(one.version().definition().name(), String.valueOf(e.getMessage()));
      }
    }
    return broken;
  }

  /** Reads the live bridges anew, after what they are made of has changed. */
  public synchronized void refresh() {
    reload();
  }

  /** The live bridges that an event of this kind concerns. */
  public List<BridgeVersion> listening(String system, String collection, String kind) {
    return live.values().stream()
        .map(Live::version)
        .filter(
            version -> {
              var from = version.definition().from();
              return from.system().equals(system)
                  && from.collection().equals(collection)
                  && from.events().contains(kind);
            })
        .toList();
  }

  /**
   * Puts a document to work as a new version of its bridge; the same document again changes
   * nothing.
   *
   * @return the version that is live now
   * @throws DocumentException if the document cannot be used; nothing is kept then
   */
  public synchronized BridgeVersion put(String document) {
    BridgeVersion first = BridgeCompiler.compile(document, 1, catalog);
    String id = first.definition().id();
    Live now = live.get(id);
    if (now != null && now.document().equals(document)) {
      return now.version();
    }
    transaction.executeWithoutResult(
        status -> {
          int number = mapper.newest(id) + 1;
          addIfNew(id);
          mapper.addVersion(id, number, document, clock.instant());
          mapper.makeLive(id, number);
        });
    reload();
    return Optional.ofNullable(live.get(id)).orElseThrow().version();
  }

  /** Makes sure that traces can be of this bridge, though no version of it is live yet. */
  public synchronized void addIfNew(String id) {
    if (mapper.count(id) == 0) {
      mapper.add(id);
    }
  }

  /**
   * From now on the bridge receives and delivers nothing; what is being sent just now still goes.
   *
   * @param because in words, for those who meet the hold
   * @return false if it is not live, or held already
   */
  public synchronized boolean hold(String id, String because) {
    boolean held = mapper.hold(id, because, clock.instant()) == 1;
    reload();
    return held;
  }

  /**
   * What was received meanwhile goes on its way.
   *
   * @return false if it was not held
   */
  public synchronized boolean release(String id) {
    boolean released = mapper.release(id) == 1;
    reload();
    return released;
  }
}
