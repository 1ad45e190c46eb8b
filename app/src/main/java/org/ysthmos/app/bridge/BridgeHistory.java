package org.ysthmos.app.bridge;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.document.DocumentException;

/** All versions of bridges, those that are live no more included. */
@Component
public class BridgeHistory {

  private final BridgeMapper mapper;
  private final EngineCatalog catalog;
  private volatile Map<String, Version> compiled = new ConcurrentHashMap<>();

  BridgeHistory(BridgeMapper mapper, EngineCatalog catalog) {
    this.mapper = mapper;
    this.catalog = catalog;
  }

  /**
   * A version, live or not.
   *
   * @param compiled empty if it cannot be used any more
   * @param problem why it cannot; empty if it can
   */
  public record Version(Optional<BridgeVersion> compiled, String problem) {}

  /** A version of a bridge by its number, compiled against the systems as they are now. */
  public Version version(String id, int number) {
    return compiled.computeIfAbsent(id + "/" + number, any -> compile(id, number));
  }

  private Version compile(String id, int number) {
    String document = mapper.document(id, number);
    if (document == null) {
      return new Version(Optional.empty(), "it is not kept");
    }
    try {
      return new Version(Optional.of(BridgeCompiler.compile(document, number, catalog)), "");
    } catch (DocumentException e) {
      return new Version(Optional.empty(), String.valueOf(e.getMessage()));
    }
  }

  /** The systems may be others by now. */
  void compileAnew() {
    compiled = new ConcurrentHashMap<>();
  }

  /** A version as it was put to work. */
  public record Kept(int number, String document, Instant madeAt) {}

  /** All versions of a bridge, newest first. */
  public List<Kept> versions(String id) {
    return mapper.versions(id).stream()
        .map(row -> new Kept(row.number(), row.document(), row.madeAt()))
        .toList();
  }
}
