package org.ysthmos.app.desk.trial;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.desk.draft.DraftCompiler;
import org.ysthmos.app.desk.draft.DraftJson;
import org.ysthmos.app.desk.draft.DraftStart;
import org.ysthmos.app.desk.sample.RowTimes;
import org.ysthmos.app.desk.sample.Sample;
import org.ysthmos.app.desk.sample.Samples;
import org.ysthmos.app.event.RecordName;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.chore.Chore;
import org.ysthmos.core.chore.ChoreTimes.ToMake;

/** When the rows of a draft would come round, those first that cannot. */
@Component
class RowsPreview {

  /** So many rows are shown. */
  private static final int SHOWN = 12;

  /**
   * A row by the draft.
   *
   * @param words when it comes round; empty if it does not
   * @param problem why it cannot be used; empty if it can
   * @param rests why it does not come round, though nothing is wrong with it
   * @param local when it is due next as the clocks there show it, without a zone; empty if it is
   *     not
   * @param make when the task of that is made; null if none is
   */
  record RowPreview(
      String record,
      String name,
      String words,
      String problem,
      String rests,
      String local,
      @Schema(nullable = true) @Nullable Instant make) {}

  /**
   * @param problem why the rules cannot be used; empty if they can
   * @param rows some of them
   * @param all how many were looked at
   * @param bad how many of those cannot be used
   */
  record RowsView(String problem, List<RowPreview> rows, int all, int bad) {}

  private final Catalog catalog;
  private final Samples samples;
  private final RowTimes times;

  RowsPreview(Catalog catalog, Samples samples, RowTimes times) {
    this.catalog = catalog;
    this.samples = samples;
    this.times = times;
  }

  RowsView of(String id, String json) {
    DraftCompiler.Compiled compiled = DraftCompiler.compile(json, catalog);
    Optional<String> problem =
        compiled.problems().stream()
            .filter(one -> one.path().startsWith("from"))
            .map(one -> Words.capital(one.message()))
            .findFirst();
    Optional<BridgeVersion> draft =
        compiled.version().filter(version -> version.chores().isPresent());
    if (problem.isPresent() || draft.isEmpty()) {
      return new RowsView(
          problem.orElse("The rest of the draft cannot be used yet"), List.of(), 0, 0);
    }
    Samples.Found found =
        samples.of(id, DraftStart.of(DraftJson.parse(json), catalog), Samples.MOST);
    List<RowPreview> rows =
        times.of(draft.get(), found.samples().stream().map(Sample::event).toList(), 1).stream()
            .map(row -> row(draft.get(), row))
            .sorted(
                Comparator.comparing((RowPreview row) -> row.problem().isEmpty())
                    .thenComparing(
                        RowPreview::make, Comparator.nullsLast(Comparator.naturalOrder())))
            .toList();
    int bad = (int) rows.stream().filter(row -> !row.problem().isEmpty()).count();
    return new RowsView(found.problem(), rows.stream().limit(SHOWN).toList(), rows.size(), bad);
  }

  private static RowPreview row(BridgeVersion draft, RowTimes.Row row) {
    Optional<ToMake> next = row.times().stream().findFirst();
    return new RowPreview(
        row.event().record(),
        RecordName.of(draft.source(), row.event()),
        row.chore().map(Chore::sentence).orElse(""),
        row.decision().failures().stream().map(Words::sentence).findFirst().orElse(""),
        row.chore().isEmpty() ? row.decision().because() : "",
        next.map(one -> one.time().at().toLocalDateTime().toString()).orElse(""),
        next.map(ToMake::make).orElse(null));
  }
}
