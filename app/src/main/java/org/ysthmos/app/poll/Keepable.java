package org.ysthmos.app.poll;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Page;

/**
 * Whether a page can be kept whole. A record that cannot stops the reading, with its reason on the
 * screens, as it would be lost if the reading went on past it.
 */
final class Keepable {

  private Keepable() {}

  /** Why a page cannot be kept; empty if it can. */
  static Optional<Failure> problem(String system, Page page) {
    return page.records().stream().flatMap(one -> problem(system, one).stream()).findFirst();
  }

  private static Optional<Failure> problem(String system, Changed one) {
    if (one.id().length() > EventRow.LONGEST_RECORD_ID) {
      return Optional.of(
          Failure.of(
                  FailureKind.SHAPE_CHANGED,
                  "A record of %s has an id of %d characters, “%s…”; at most %d are kept"
                      .formatted(
                          system,
                          one.id().length(),
                          one.id().substring(0, 40),
                          EventRow.LONGEST_RECORD_ID))
              .withRemedy(
                  "Give it a shorter one there, or describe another field as the id; reading goes on then"));
    }
    int size = one.record().toString().getBytes(StandardCharsets.UTF_8).length;
    if (size > EventRow.LARGEST_BODY) {
      return Optional.of(
          Failure.of(
                  FailureKind.SHAPE_CHANGED,
                  String.format(
                      Locale.ENGLISH,
                      "The record “%s” of %s has %,d bytes; at most %,d are kept",
                      one.id(),
                      system,
                      size,
                      EventRow.LARGEST_BODY))
              .withRemedy("Ask for fewer of its fields in the call; reading goes on then"));
    }
    return Optional.empty();
  }
}
