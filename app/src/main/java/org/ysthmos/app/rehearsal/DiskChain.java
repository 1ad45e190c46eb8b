package org.ysthmos.app.rehearsal;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.LongFunction;
import org.ysthmos.core.decide.World.PairState;
import org.ysthmos.core.rehearsal.Outcome;
import org.ysthmos.core.rehearsal.PairChain;
import org.ysthmos.core.rehearsal.WrittenFields;

/**
 * Pairs of a rehearsal, so that a hundred thousand of them need little memory: where one stands is
 * in memory, how it stands is kept already or written to the end of a file, which is gone once the
 * rehearsal ends. Not for several threads.
 */
final class DiskChain implements PairChain, AutoCloseable {

  private static final int UNWRITTEN = 1 << 16;

  /** A pair that was there and is not made here. */
  private static final long NONE = Long.MAX_VALUE;

  private final Path file;
  private final LongFunction<Optional<Outcome>> decided;
  private final RandomAccessFile states;

  /**
   * Of each pair the event whose outcome of then it stands as, by its order number; or, below zero,
   * where in the file its state begins: -1 at its first byte.
   */
  private final HashIndex pairs = new HashIndex();

  private final ByteBuffer unwritten = ByteBuffer.allocate(UNWRITTEN);
  private long written;
  private long event;

  /**
   * @param decided what was decided of an event then, by its order number
   */
  DiskChain(Path file, LongFunction<Optional<Outcome>> decided) {
    this.file = file;
    this.decided = decided;
    try {
      remove();
      states = new RandomAccessFile(file.toFile(), "rw");
    } catch (IOException e) {
      throw new UncheckedIOException(file + " cannot be begun", e);
    }
  }

  /** The event that is decided next. */
  void at(long seq) {
    event = seq;
  }

  @Override
  public Optional<Known> find(String key) {
    long stands = pairs.get(key);
    if (stands == HashIndex.FREE) {
      return Optional.empty();
    }
    if (stands == NONE) {
      return Optional.of(new Known(Optional.empty()));
    }
    Optional<PairState> state =
        stands < 0
            ? Optional.of(read(-1 - stands))
            : decided.apply(stands).flatMap(of -> of.task(key)).map(Outcome.Task::after);
    return state.map(pair -> new Known(Optional.of(pair)));
  }

  @Override
  public boolean knows(String key) {
    return pairs.get(key) != HashIndex.FREE;
  }

  @Override
  public void put(Outcome.Task now) {
    byte[] target = now.record().getBytes(StandardCharsets.UTF_8);
    pairs.put(now.key(), -1 - append(target, now.kept().json()));
  }

  @Override
  public void putAsThen(Outcome.Task then) {
    pairs.put(then.key(), event);
  }

  @Override
  public void putNone(String key) {
    pairs.put(key, NONE);
  }

  /** Where it begins. */
  private long append(byte[] target, ByteBuffer fields) {
    int length = 2 * Integer.BYTES + target.length + fields.remaining();
    try {
      if (unwritten.remaining() < length) {
        write();
      }
      long at = written + unwritten.position();
      if (unwritten.remaining() < length) {
        ByteBuffer large = ByteBuffer.allocate(length);
        put(target, fields, large);
        states.seek(at);
        states.write(large.array());
        written += length;
      } else {
        put(target, fields, unwritten);
      }
      return at;
    } catch (IOException e) {
      throw new UncheckedIOException("a pair cannot be written to " + file, e);
    }
  }

  private static void put(byte[] target, ByteBuffer fields, ByteBuffer to) {
    ByteBuffer unused = to.putInt(target.length).put(target).putInt(fields.remaining()).put(fields);
  }

  private PairState read(long at) {
    try {
      if (at >= written) {
        write();
      }
      states.seek(at);
      String target = new String(part(), StandardCharsets.UTF_8);
      return Outcome.Task.state(target, WrittenFields.read(part()));
    } catch (IOException e) {
      throw new UncheckedIOException("a pair cannot be read from " + file, e);
    }
  }

  private byte[] part() throws IOException {
    byte[] part = new byte[states.readInt()];
    states.readFully(part);
    return part;
  }

  private void write() throws IOException {
    states.seek(written);
    states.write(unwritten.array(), 0, unwritten.position());
    written += unwritten.position();
    unwritten.clear();
  }

  @Override
  public void close() {
    try {
      states.close();
      remove();
    } catch (IOException e) {
      throw new UncheckedIOException(file + " cannot be removed", e);
    }
  }

  private void remove() throws IOException {
    boolean unused = Files.deleteIfExists(file);
  }
}
