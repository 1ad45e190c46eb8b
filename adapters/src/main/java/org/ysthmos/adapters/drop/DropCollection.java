package org.ysthmos.adapters.drop;

import java.nio.file.FileSystems;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.time.Duration;
import java.util.Optional;
import org.ysthmos.adapters.system.PollSpec;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.CollectionShape;

/**
 * The records in those files of a folder whose names fit.
 *
 * @param files which names fit, as a shell writes it: {@code orders-*.csv}
 * @param form how they are written
 * @param id where a record holds its id
 */
record DropCollection(
    CollectionShape shape, String files, FileKind reads, FileForm form, Pointer id, Duration every)
    implements SystemCollection {

  @Override
  public Optional<Pointer> lists() {
    return Optional.of(id);
  }

  @Override
  public Optional<PollSpec> polled() {
    return Optional.of(
        new PollSpec(
            every, id, Pointer.parse("/no-such-field"), false, false, PollSpec.USUAL_KINDS));
  }

  /** Whether a file belongs here; what begins with a full stop is still being written. */
  boolean fits(Path file) {
    PathMatcher matcher = FileSystems.getDefault().getPathMatcher("glob:" + files);
    Path name = file.getFileName();
    return !name.toString().startsWith(".") && matcher.matches(name);
  }
}
