package org.ysthmos.app.bridge;

import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.guard.EffectCounts;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.guard.BusyPast;
import org.ysthmos.core.guard.Ceiling;
import org.ysthmos.core.guard.TurnGuard;
import org.ysthmos.core.shape.Shapes;

/** The live bridges, each compiled once. */
@Component
public class Bridges {

  private static final Logger LOG = LoggerFactory.getLogger(Bridges.class);

  /**
   * A live version with the document it was compiled from.
   *
   * @param ceiling the most that it may do, stated or reckoned when it went live
   * @param hold why nothing is delivered just now; empty if it is
   * @param letThrough up to this trace a person let go what it received, whatever caused it
   */
  public record Live(
      BridgeVersion version,
      String document,
      Instant since,
      Ceiling ceiling,
      Optional<Hold> hold,
      long letThrough) {

    /** What it may do about its own doing. */
    public TurnGuard turns() {
      return new TurnGuard(
          version
              .definition()
              .ceiling()
              .map(BridgeDefinition.Ceiling::turns)
              .orElse(BridgeDefinition.Turns.USUAL),
          ceiling.per());
    }
  }

  /**
   * A bridge that was live and cannot be used any more, for example because a table it needs is
   * gone. It goes on receiving, and what it receives waits until it can be used again.
   *
   * @param problem why, and where
   */
  public record Broken(
      String id, int number, String document, Listens listens, Instant since, String problem) {}

  /** A bridge keeps receiving and delivers nothing. */
  public record Hold(Instant since, String because, String by) {

    /** Whether nobody held it but the engine itself. */
    public boolean byEngine() {
      return by.equals(By.ENGINE.name());
    }

    /** Whether it was set up so, and has never run: it waits for nobody. */
    public boolean bySetup() {
      return by.equals(By.SETUP.name());
    }
  }

  /** A bridge that receives and delivers nothing more, with the version that was live last. */
  public record Retired(String id, int number, String document, Instant since, String because) {}

  private final BridgeMapper mapper;
  private final EngineCatalog catalog;
  private final EffectCounts effects;
  private final AppClock clock;
  private final TransactionTemplate transaction;
  private final WorkSignals signals;
  private final BridgeHistory history;
  private volatile State state = State.of(Map.of(), Map.of(), Map.of());

  private record State(
      Map<String, Live> live,
      Map<String, Broken> broken,
      Map<String, Retired> retired,
      Map<CollectionRef, List<Hearing>> heard) {

    private static State of(
        Map<String, Live> live, Map<String, Broken> broken, Map<String, Retired> retired) {
      Map<CollectionRef, List<Hearing>> heard = new HashMap<>();
      live.forEach((id, one) -> Listens.of(one.version()).addTo(heard, id));
      broken.forEach((id, one) -> one.listens().addTo(heard, id));
      return new State(
          Map.copyOf(live), Map.copyOf(broken), Map.copyOf(retired), Map.copyOf(heard));
    }
  }

  /** That a bridge hears a collection; by collection, since one bridge may hear very many. */
  record Hearing(String bridge, Listens.Heard heard) {}

  Bridges(
      BridgeMapper mapper,
      EngineCatalog catalog,
      EffectCounts effects,
      AppClock clock,
      TransactionTemplate transaction,
      WorkSignals signals,
      BridgeHistory history) {
    this.mapper = mapper;
    this.catalog = catalog;
    this.effects = effects;
    this.clock = clock;
    this.transaction = transaction;
    this.signals = signals;
    this.history = history;
    reload();
  }

  private void reload() {
    Map<String, Live> fresh = new LinkedHashMap<>();
    Map<String, Broken> broken = new LinkedHashMap<>();
    for (BridgeMapper.LiveRow row : mapper.live()) {
      try {
        BridgeVersion version = BridgeCompiler.compile(row.document(), row.number(), catalog);
        fresh.put(
            row.bridgeId(),
            new Live(
                version,
                row.document(),
                row.madeAt(),
                ceiling(row, version),
                hold(row),
                row.letThrough()));
        String listens = Listens.of(version).write();
        // Those of a table's rows are others when it changes.
        if (!row.listens().equals(listens)) {
          mapper.noteListens(row.bridgeId(), row.number(), listens);
        }
      } catch (DocumentException e) {
        // One bridge that no longer fits its systems must not keep the others from working.
        LOG.error("bridge {} cannot be used: {}", row.bridgeId(), e.getMessage());
        broken.put(
            row.bridgeId(),
            new Broken(
                row.bridgeId(),
                row.number(),
                row.document(),
                Listens.read(row.listens()),
                row.madeAt(),
                String.valueOf(e.getMessage())));
      }
    }
    Map<String, Retired> retired = new LinkedHashMap<>();
    for (BridgeMapper.RetiredRow row : mapper.retired()) {
      retired.put(
          row.bridgeId(),
          new Retired(
              row.bridgeId(), row.number(), row.document(), row.retiredAt(), row.retiredBecause()));
    }
    history.compileAnew();
    state = State.of(fresh, broken, retired);
    signals.toWatch().raise();
    signals.toTime().raise();
    signals.toChores().raise();
  }

  private static Optional<Hold> hold(BridgeMapper.LiveRow row) {
    return Optional.ofNullable(row.heldAt())
        .map(since -> new Hold(since, text(row.heldBecause()), text(row.heldBy())));
  }

  private static String text(@Nullable String kept) {
    return kept == null ? "" : kept;
  }

  /** What a version may do; what is to be reckoned for it is reckoned once. */
  private Ceiling ceiling(BridgeMapper.LiveRow row, BridgeVersion version) {
    String busy = row.busy();
    if (busy == null) {
      busy = BusyText.write(busiest(version.definition()));
      mapper.noteBusy(row.bridgeId(), row.number(), busy);
    }
    return Ceiling.of(version.definition().ceiling(), BusyText.read(busy));
  }

  /** The busiest span of a bridge so far, of the length that its ceiling is for. */
  public Map<EffectKind, BusyPast> busiest(BridgeDefinition definition) {
    return effects.busiest(definition.id(), Ceiling.span(definition.ceiling()));
  }

  public List<Live> live() {
    return state.live().values().stream()
        .sorted(Comparator.comparing(one -> one.version().definition().id()))
        .toList();
  }

  public Optional<Live> live(String id) {
    return Optional.ofNullable(state.live().get(id));
  }

  /** The bridges that were live and cannot be used any more. */
  public List<Broken> broken() {
    return state.broken().values().stream().sorted(Comparator.comparing(Broken::id)).toList();
  }

  /** The bridges that were retired. */
  public List<Retired> retired() {
    return state.retired().values().stream().sorted(Comparator.comparing(Retired::id)).toList();
  }

  public Optional<Retired> retired(String id) {
    return Optional.ofNullable(state.retired().get(id));
  }

  /** What people call a bridge, live or retired; its id if its document cannot be read. */
  public String nameOf(String id) {
    return live(id)
        .map(live -> live.version().definition().name())
        .or(() -> retired(id).map(one -> name(id, one.document())))
        .orElse(id);
  }

  private static String name(String id, String document) {
    try {
      return BridgeReader.read(DocumentNode.parse(document)).name();
    } catch (DocumentException e) {
      LOG.warn("the document of the retired bridge {} cannot be read: {}", id, e.getMessage());
      return id;
    }
  }

  /** Whether a live bridge hears several places, so that what it does is seen by place. */
  public boolean hearsPlaces(String id) {
    Live live = state.live().get(id);
    return live != null && !live.version().places().isEmpty();
  }

  /** Whether a bridge is held, so that nothing of it is delivered. */
  public boolean isHeld(String id) {
    return live(id).flatMap(Live::hold).isPresent();
  }

  /**
   * The live bridges that could not be used any more if collections were other than they are.
   *
   * @return the name of each to why
   */
  public Map<String, String> brokenBy(Shapes shapes) {
    return brokenBy(now -> now.with(shapes));
  }

  /**
   * The live bridges that could not be used any more if what they are compiled against were other
   * than it is.
   *
   * @return the name of each to why
   */
  public Map<String, String> brokenBy(UnaryOperator<Catalog> change) {
    Catalog changed = change.apply(catalog);
    Map<String, String> broken = new LinkedHashMap<>();
    for (Live one : live()) {
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

  /**
   * The ids of the bridges that an event of this kind concerns, in order; those that cannot be used
   * just now too, since their events must not be lost.
   */
  public List<String> listening(String system, String collection, String kind) {
    return state.heard().getOrDefault(new CollectionRef(system, collection), List.of()).stream()
        .filter(one -> one.heard().hears(kind))
        .map(Hearing::bridge)
        .sorted()
        .toList();
  }

  /**
   * Puts a document to work as a new version of its bridge; the same document again changes
   * nothing.
   *
   * @return the version that is live now
   * @throws DocumentException if the document cannot be used; nothing is kept then
   */
  public BridgeVersion put(String document, By by) {
    return put(document, by, "");
  }

  /**
   * The same with the circles that a person said yes to, each on a line.
   *
   * @param loopsYes at most 4,000 characters
   */
  synchronized BridgeVersion put(String document, By by, String loopsYes) {
    BridgeVersion first = BridgeCompiler.compile(document, 1, catalog);
    String id = first.definition().id();
    Live now = state.live().get(id);
    if (now != null && now.document().equals(document)) {
      return now.version();
    }
    transaction.executeWithoutResult(
        status -> {
          int number = mapper.newest(id) + 1;
          addIfNew(id);
          String listens = Listens.of(first).write();
          mapper.addVersion(id, number, document, listens, clock.instant(), by.name(), loopsYes);
          mapper.makeLive(id, number);
        });
    reload();
    return Optional.ofNullable(state.live().get(id)).orElseThrow().version();
  }

  /** Makes several changes, while nobody else makes any. */
  synchronized void together(Runnable changes) {
    changes.run();
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
  public synchronized boolean hold(String id, String because, By by) {
    boolean held = mapper.hold(id, because, clock.instant(), by.name()) == 1;
    reload();
    return held;
  }

  /** The circles that a person said yes to when the live version went live, each on a line. */
  String loopsYes(String id) {
    return text(mapper.loopsYes(id));
  }

  /**
   * A bridge holds itself, unless a person released it since what is found was found: of several
   * workers that find the same, the last may come after that.
   *
   * @param letThrough up to which trace it was let go when that was found
   * @return false if it is held already, or was released
   */
  public synchronized boolean holdItself(String id, String because, long letThrough) {
    boolean released = live(id).filter(one -> one.letThrough() != letThrough).isPresent();
    boolean held = !released && hold(id, because, By.ENGINE);
    if (held) {
      LOG.warn("bridge {} holds itself: {}", id, because);
    }
    return held;
  }

  /**
   * What was received meanwhile goes on its way.
   *
   * @return false if it was not held
   */
  public synchronized boolean release(String id, By by) {
    boolean released = mapper.release(id) == 1;
    LOG.info("bridge {} is released by {}", id, by.name());
    reload();
    return released;
  }

  /**
   * The bridge receives and delivers nothing more; its versions and all that it did are kept.
   * Putting a version to work again brings it back.
   *
   * @param because in words, for those who look for it
   * @return false if it is not held
   */
  public synchronized boolean retire(String id, String because, By by) {
    boolean retired = mapper.retire(id, because, clock.instant(), by.name()) == 1;
    reload();
    return retired;
  }
}
