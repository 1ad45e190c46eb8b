package org.ysthmos.core.testkit;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.trial.TrialWorld;
import org.ysthmos.core.value.ValueType;

/** A desk whose tickets become jobs on a board, and can be written back to; and a post office. */
public final class Desk {

  private static final Map<String, CollectionShape> ALL =
      Map.of("desk/tickets", tickets(), "board/jobs", jobs(), "post/letters", letters());

  /** The three collections, with what their systems can do. */
  public static final Catalog CATALOG =
      Catalog.of(
          new Shapes() {
            @Override
            public Optional<CollectionShape> find(String system, String collection) {
              return Optional.ofNullable(ALL.get(system + "/" + collection));
            }

            @Override
            public Set<String> systems() {
              return Set.of("desk", "board", "post");
            }

            @Override
            public Set<String> collections(String system) {
              return switch (system) {
                case "desk" -> Set.of("tickets");
                case "board" -> Set.of("jobs");
                case "post" -> Set.of("letters");
                default -> Set.of();
              };
            }
          });

  /** A ticket becomes a job; its number and link go back; whoever asked gets a letter. */
  public static final String BRIDGE =
      """
      bridge: ticket-to-job
      name: Tickets to jobs
      purpose: A job for each ticket
      from: { system: desk, collection: tickets, event: [opened, changed] }
      to: { system: board, collection: jobs }
      match: [event/record]
      fields:
        title: /place
      then:
        back:
          to: record
          fields:
            job: made/id
            page: made/link
            state: { always: taken on }
        tell:
          to: { system: post, collection: letters }
          when: { value: /asker, is: present }
          fields:
            to: /asker
            text: { text: "Job {made/id} is made: {made/link}" }
      ceiling: { creates: 10, per: PT1H }
      """;

  private Desk() {}

  public static BridgeVersion bridge(String yaml) {
    return BridgeCompiler.compile(yaml, 1, CATALOG);
  }

  public static TrialWorld world() {
    return new TrialWorld(CATALOG, Map.of());
  }

  public static Event ticket(String kind, String record, String data) {
    return Garden.event("desk/tickets", kind, record, data);
  }

  private static CollectionShape tickets() {
    List<FieldShape> read =
        List.of(
            FieldShape.of("/place", "place", ValueType.TEXT),
            FieldShape.of("/asker", "asker", ValueType.TEXT),
            FieldShape.of("/whole", "whole", ValueType.TEXT),
            FieldShape.of("/status", "status", ValueType.TEXT));
    List<FieldShape> all =
        List.of(
            FieldShape.of("/place", "place", ValueType.TEXT),
            FieldShape.of("job", "job", ValueType.TEXT),
            FieldShape.of("page", "page", ValueType.LINK),
            FieldShape.of("state", "state", ValueType.TEXT));
    return new CollectionShape("desk", "Desk", "tickets", "Tickets", "ticket", "", "", all, read)
        .with(new CollectionShape.Abilities(List.of("opened", "changed"), false, true, true, true));
  }

  private static CollectionShape jobs() {
    return new CollectionShape(
            "board",
            "Board",
            "jobs",
            "Jobs",
            "job",
            "title",
            "parent",
            List.of(
                FieldShape.of("title", "title", ValueType.TEXT).withRequired(true),
                FieldShape.of("parent", "parent", ValueType.TEXT)),
            List.of(FieldShape.of("/status", "status", ValueType.TEXT)))
        .with(new CollectionShape.Abilities(List.of("changed"), true, true, true, true));
  }

  private static CollectionShape letters() {
    return new CollectionShape(
            "post",
            "Post",
            "letters",
            "Letters",
            "letter",
            "",
            "",
            List.of(
                FieldShape.of("to", "to", ValueType.TEXT).withRequired(true),
                FieldShape.of("text", "text", ValueType.TEXT)),
            List.of())
        .with(new CollectionShape.Abilities(List.of(), true, false, false, true));
  }
}
