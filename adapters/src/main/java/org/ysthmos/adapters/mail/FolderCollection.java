package org.ysthmos.adapters.mail;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.ysthmos.adapters.system.Asked;
import org.ysthmos.adapters.system.SystemCollection;
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
    implements SystemCollection {

  static final String ARRIVED = "arrived";
  static final String FLAGGED = "flagged";

  private static final Pointer ID = Pointer.parse("/id");

  @Override
  public List<List<String>> findsBy() {
    return List.of(List.of("id"));
  }

  @Override
  public Optional<Pointer> lists() {
    return Optional.of(ID);
  }

  @Override
  public Optional<Asked> asked() {
    return Optional.of(
        new Asked(every, ID, Pointer.parse("/version"), false, false, List.of(ARRIVED, FLAGGED)));
  }
}
