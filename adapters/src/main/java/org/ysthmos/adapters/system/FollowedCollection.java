package org.ysthmos.adapters.system;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.json.Pointer;

/**
 * A collection whose records we make up from what another protocol tells: each has its id at {@code
 * /id}, is found by it, is listed, and is asked for what changed.
 */
public interface FollowedCollection extends SystemCollection {

  Pointer ID = Pointer.parse("/id");

  /** How often it is asked, where a bridge says nothing else. */
  Duration every();

  /** Where the mark stands that tells one change of a record from the next. */
  Pointer versionAt();

  /** The kinds of event that its changes are. */
  List<String> changeKinds();

  @Override
  default List<List<String>> findsBy() {
    return List.of(List.of("id"));
  }

  @Override
  default Optional<Pointer> lists() {
    return Optional.of(ID);
  }

  @Override
  default Optional<PollSpec> polled() {
    return Optional.of(new PollSpec(every(), ID, versionAt(), false, false, changeKinds()));
  }
}
