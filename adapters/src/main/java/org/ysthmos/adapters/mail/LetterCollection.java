package org.ysthmos.adapters.mail;

import jakarta.mail.internet.InternetAddress;
import java.util.Optional;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.core.delivery.Promise;
import org.ysthmos.core.shape.CollectionShape;

/**
 * Letters that are sent by SMTP.
 *
 * @param from who they are from
 * @param keptIn the folder of the account that keeps a copy of each; empty if none does
 */
record LetterCollection(CollectionShape shape, InternetAddress from, Optional<String> keptIn)
    implements SystemCollection {

  @Override
  public boolean makes() {
    return true;
  }

  /** The copy is kept after the letter is sent, so that no copy does not mean no letter. */
  @Override
  public Promise promise() {
    return keptIn.isPresent() ? Promise.SEEN_IF_KEPT : Promise.NONE;
  }

  @Override
  public boolean findsByKey() {
    return keptIn.isPresent();
  }
}
