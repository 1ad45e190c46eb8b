package org.ysthmos.core.gateway;

import java.util.Optional;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;

/** A system whose records are read and never written. */
public interface ReadingGateway extends SystemGateway {

  /** What people call the system. */
  String name();

  @Override
  default Search findByKey(String collection, String idempotencyKey, CallLog calls) {
    return new Unsearchable();
  }

  @Override
  default Outcome deliver(Effect effect, Progress progress, CallLog calls) {
    return new Undelivered(Failure.of(FailureKind.NOT_ALLOWED, name() + " takes no tasks"));
  }

  @Override
  default Removal remove(String collection, String record, Optional<String> tag, CallLog calls) {
    return new NotRemoved(
        Failure.of(FailureKind.NOT_ALLOWED, name() + " lets us take nothing away"));
  }
}
