package org.ysthmos.app.trace;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.BridgeHistory;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;

/**
 * Finds what carries a trace: the live version, for a try the draft as it was then, for what is
 * sent again as before the version of then.
 */
@Component
public class BridgeOfTrace {

  private static final Logger LOG = LoggerFactory.getLogger(BridgeOfTrace.class);

  private final Bridges bridges;
  private final BridgeHistory history;
  private final Catalog catalog;
  private final TraceMapper traces;

  BridgeOfTrace(Bridges bridges, BridgeHistory history, Catalog catalog, TraceMapper traces) {
    this.bridges = bridges;
    this.history = history;
    this.catalog = catalog;
    this.traces = traces;
  }

  /** What carries a trace, if anything does. */
  public sealed interface Carrier {}

  /** A version that can be used. */
  public record Usable(BridgeVersion version) implements Carrier {}

  /** The live version cannot be used just now; it may be again. */
  public record NotNow() implements Carrier {}

  /** Nothing will carry it. */
  public record Never(Failure because) implements Carrier {}

  /** Empty if it cannot be used just now. */
  public Optional<BridgeVersion> find(TraceRow trace) {
    String document = trace.isTry() ? traces.tryDocument(trace.seq()) : null;
    return carrier(trace, document) instanceof Usable usable
        ? Optional.of(usable.version())
        : Optional.empty();
  }

  /**
   * @param tryDocument the draft of a try; null for a trace of a live bridge
   */
  public Carrier carrier(TraceRow trace, @Nullable String tryDocument) {
    return asItLooks(carrying(trace, tryDocument), trace);
  }

  private Carrier carrying(TraceRow trace, @Nullable String tryDocument) {
    if (tryDocument != null) {
      return draft(trace, tryDocument);
    }
    Integer older = trace.resendOf() == null ? null : traces.versionOf(trace.seq());
    if (older != null) {
      return version(trace.bridgeId(), older);
    }
    return live(trace.bridgeId());
  }

  /** What would carry a trace if it were sent again. */
  public Carrier again(TraceRow trace, CarriedBy rules) {
    Integer before = trace.bridgeVersion();
    return asItLooks(
        rules == CarriedBy.AS_BEFORE && before != null
            ? version(trace.bridgeId(), before)
            : live(trace.bridgeId()),
        trace);
  }

  /** A bridge that hears more than one collection, as it looks from where the event came. */
  private static Carrier asItLooks(Carrier carrier, TraceRow trace) {
    String[] place = trace.orderKey().split("/", 3);
    return carrier instanceof Usable usable && place.length > 1
        ? new Usable(usable.version().seenFrom(place[0], place[1]))
        : carrier;
  }

  private Carrier live(String bridge) {
    return bridges
        .live(bridge)
        .<Carrier>map(live -> new Usable(live.version()))
        .orElseGet(NotNow::new);
  }

  /** A version of a bridge, live or not. */
  private Carrier version(String bridge, int number) {
    BridgeHistory.Version kept = history.version(bridge, number);
    return kept.compiled()
        .<Carrier>map(Usable::new)
        .orElseGet(
            () ->
                new Never(
                    Failure.of(
                            FailureKind.MAPPING_ERROR,
                            "Version %d cannot be used any more: %s"
                                .formatted(number, kept.problem()))
                        .withRemedy("Send it again with the rules that are live")));
  }

  private Carrier draft(TraceRow trace, String document) {
    try {
      return new Usable(BridgeCompiler.compile(document, 0, catalog));
    } catch (DocumentException e) {
      LOG.warn("the try {} cannot be used just now: {}", trace.id(), e.getMessage());
      return new Never(
          Failure.of(FailureKind.MAPPING_ERROR, "The draft cannot be used any more")
              .withRemedy("Look at its mistakes on the desk, then try once more"));
    }
  }
}
