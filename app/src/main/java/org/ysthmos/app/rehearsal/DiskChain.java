package org.ysthmos.app.rehearsal;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.LongFunction;
import org.h2.mvstore.MVMap;
import org.h2.mvstore.MVStore;
import org.ysthmos.app.store.PackedJson;
import org.ysthmos.core.decide.World.PairState;
import org.ysthmos.core.rehearsal.Outcome;
import org.ysthmos.core.rehearsal.PairChain;
import org.ysthmos.core.value.ValueJson;

/**
 * Pairs of a rehearsal in a file of its own, so that a hundred thousand of them need little memory.
 * The file is gone once the rehearsal ends.
 */
final class DiskChain implements PairChain, AutoCloseable {

  private static final int CACHE_MEGABYTES = 8;
  private static final byte[] NONE = {};

  private final Path file;
  private final LongFunction<Optional<Outcome>> decided;
  private final MVStore store;
  private final MVMap<String, byte[]> pairs;
  private long event;

  /**
   * @param decided what was decided of an event then, by its order number
   */
  DiskChain(Path file, LongFunction<Optional<Outcome>> decided) {
    this.file = file;
    this.decided = decided;
    remove(file);
    // Nothing of it outlives the rehearsal, so it is written only where memory runs short.
    store =
        new MVStore.Builder()
            .fileName(file.toString())
            .cacheSize(CACHE_MEGABYTES)
            .autoCommitDisabled()
            .open();
    pairs = store.openMap("pairs");
  }

  /** The event that is decided next. */
  void at(long seq) {
    event = seq;
  }

  @Override
  public Optional<Known> find(String key) {
    byte[] kept = pairs.get(key);
    if (kept == null) {
      return Optional.empty();
    }
    if (kept.length == 0) {
      return Optional.of(new Known(Optional.empty()));
    }
    if (kept.length == Long.BYTES) {
      long seq = ByteBuffer.wrap(kept).getLong();
      return decided
          .apply(seq)
          .flatMap(outcome -> outcome.task(key))
          .map(task -> new Known(Optional.of(task.after())));
    }
    JsonNode node = PackedJson.unpack(kept);
    return Optional.of(
        new Known(
            Optional.of(
                new PairState(
                    Optional.of(node.path("target").asText()),
                    ValueJson.readAll(node.path("agreed"))))));
  }

  @Override
  public boolean knows(String key) {
    return pairs.containsKey(key);
  }

  @Override
  public void put(String key, Known known) {
    pairs.put(key, known.state().map(DiskChain::bytes).orElse(NONE));
  }

  @Override
  public void putAsThen(Outcome.Task then) {
    pairs.put(then.key(), ByteBuffer.allocate(Long.BYTES).putLong(event).array());
  }

  private static byte[] bytes(PairState state) {
    ObjectNode node = JsonNodeFactory.instance.objectNode();
    node.put("target", state.target().orElse(""));
    node.set("agreed", ValueJson.writeAll(state.agreed()));
    return PackedJson.pack(node);
  }

  /** What was put is written, so that it needs no memory. */
  void flush() {
    long unused = store.commit();
  }

  @Override
  public void close() {
    store.closeImmediately();
    remove(file);
  }

  private static void remove(Path file) {
    try {
      boolean unused = Files.deleteIfExists(file);
    } catch (IOException e) {
      throw new UncheckedIOException(file + " cannot be removed", e);
    }
  }
}
