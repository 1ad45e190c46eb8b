package org.ysthmos.adapters.mail;

import java.time.Duration;
import java.util.List;
import org.ysthmos.adapters.system.FollowedCollection;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.CollectionShape;

/**
 * Mails in one or several folders of an account. A mail that comes into one of them, or is moved
 * there, has {@code arrived}; one that somebody flags there is {@code flagged}, once.
 *
 * @param folders their full names, levels parted as the server parts them
 * @param every how often they are asked, where a bridge says nothing else
 */
record FolderCollection(CollectionShape shape, List<String> folders, Duration every)
    implements FollowedCollection {

  static final String ARRIVED = "arrived";
  static final String FLAGGED = "flagged";

  private static final Pointer VERSION = Pointer.parse("/version");

  @Override
  public Pointer versionAt() {
    return VERSION;
  }

  /** A letter from here that comes back is known by its Message-ID. */
  @Override
  public List<String> marks(Event event) {
    return event.kind().equals(ARRIVED) ? List.of(event.record()) : List.of();
  }

  /** A letter is no record of a folder, and arrives in one. */
  @Override
  public boolean hearsOf(SystemCollection written) {
    return written instanceof LetterCollection;
  }

  @Override
  public List<String> changeKinds() {
    return List.of(ARRIVED, FLAGGED);
  }
}
