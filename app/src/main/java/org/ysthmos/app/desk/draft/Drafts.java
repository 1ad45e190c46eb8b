package org.ysthmos.app.desk.draft;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.document.DocumentNode;

/**
 * The drafts of bridges, kept as they are typed. A draft is JSON, which every YAML reader reads, so
 * that the screens need no reader of their own; a version that goes live is written as YAML.
 */
@Component
public class Drafts {

  /**
   * A draft.
   *
   * @param revision counts the changes; 0 if nothing was kept yet and it is the live version
   */
  public record Draft(String id, String document, int revision, Optional<Instant> changedAt) {}

  private final DraftMapper mapper;
  private final Bridges bridges;
  private final AppClock clock;

  Drafts(DraftMapper mapper, Bridges bridges, AppClock clock) {
    this.mapper = mapper;
    this.bridges = bridges;
    this.clock = clock;
  }

  /** The draft of a bridge; the live version where there is no draft. */
  public Draft find(String id) {
    DraftMapper.DraftRow row = mapper.find(id);
    if (row != null) {
      return new Draft(id, row.document(), row.revision(), Optional.of(row.changedAt()));
    }
    return bridges
        .live(id)
        .map(live -> new Draft(id, DraftJson.of(live.document()), 0, Optional.empty()))
        .orElseThrow(() -> ApiProblem.notFound("bridge", id));
  }

  /** The draft of a bridge; empty where nothing was typed since the live version. */
  public Optional<Draft> kept(String id) {
    return Optional.ofNullable(mapper.find(id))
        .map(row -> new Draft(id, row.document(), row.revision(), Optional.of(row.changedAt())));
  }

  public List<Draft> all() {
    return mapper.all().stream()
        .map(
            row ->
                new Draft(
                    row.bridgeId(), row.document(), row.revision(), Optional.of(row.changedAt())))
        .toList();
  }

  /** Keeps a new draft of a bridge that is not there yet. */
  public void add(String id, String document) {
    if (bridges.live(id).isPresent()) {
      throw taken(id);
    }
    try {
      mapper.add(new DraftMapper.DraftRow(id, document, 1, clock.instant()));
    } catch (DuplicateKeyException e) {
      throw taken(id);
    }
  }

  private static ApiProblem taken(String id) {
    return new ApiProblem(
        HttpStatus.CONFLICT, "The id is taken", "There is a bridge “" + id + "” already.");
  }

  /**
   * Keeps what was typed.
   *
   * @param revision the revision that was typed into
   * @throws ApiProblem if someone else changed the draft since; nothing is kept then
   */
  public Draft keep(String id, String document, int revision) {
    requireUsable(document);
    if (revision == 0 && mapper.find(id) == null) {
      var unused = find(id);
      try {
        mapper.add(new DraftMapper.DraftRow(id, document, 1, clock.instant()));
        return find(id);
      } catch (DuplicateKeyException anotherWasFirst) {
        throw changedMeanwhile();
      }
    }
    if (mapper.change(id, document, revision, clock.instant()) == 0) {
      throw changedMeanwhile();
    }
    return find(id);
  }

  private static void requireUsable(String document) {
    if (document.length() > DocumentNode.LARGEST) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY,
          "Too large",
          "A draft has at most " + DocumentNode.LARGEST + " characters. What was kept stays.");
    }
    DraftJson.requireObject(document);
  }

  private static ApiProblem changedMeanwhile() {
    return new ApiProblem(
        HttpStatus.CONFLICT,
        "Changed meanwhile",
        "Someone else changed this draft. Your change is not kept; take theirs, or copy yours first.");
  }

  /** Gives the draft up; the live version stays. */
  public void drop(String id) {
    mapper.drop(id);
  }
}
