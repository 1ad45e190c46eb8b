package org.ysthmos.app.trace;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.document.DocumentException;

/** Finds what carries a trace: the live version, or for a try the draft as it was then. */
@Component
public class BridgeOfTrace {

  private static final Logger LOG = LoggerFactory.getLogger(BridgeOfTrace.class);

  private final Bridges bridges;
  private final Catalog catalog;
  private final TraceMapper traces;

  BridgeOfTrace(Bridges bridges, Catalog catalog, TraceMapper traces) {
    this.bridges = bridges;
    this.catalog = catalog;
    this.traces = traces;
  }

  /** Empty if the bridge cannot be used just now. */
  public Optional<BridgeVersion> find(TraceRow trace) {
    return find(trace, trace.isTry() ? traces.tryDocument(trace.seq()) : null);
  }

  /**
   * @param tryDocument the draft of a try; null for a trace of a live bridge
   */
  public Optional<BridgeVersion> find(TraceRow trace, @Nullable String tryDocument) {
    if (tryDocument == null) {
      return bridges.live(trace.bridgeId()).map(Bridges.Live::version);
    }
    try {
      return Optional.of(BridgeCompiler.compile(tryDocument, 0, catalog));
    } catch (DocumentException e) {
      LOG.warn("the try {} cannot be used just now: {}", trace.id(), e.getMessage());
      return Optional.empty();
    }
  }
}
