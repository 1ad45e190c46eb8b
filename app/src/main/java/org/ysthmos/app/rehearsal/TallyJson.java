package org.ysthmos.app.rehearsal;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.json.JsonMapper;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.rehearsal.Tally;

/** What a rehearsal comes to, counted, as it is kept and told. */
record TallyJson(List<CellView> verdicts, List<FieldCount> fields) {

  /**
   * How many events came to a verdict then and to one now.
   *
   * @param then null if nothing is known of it
   */
  record CellView(@Schema(nullable = true) @Nullable Verdict then, Verdict now, long events) {}

  /**
   * In how many events a field is otherwise.
   *
   * @param field its key, behind the name of its task where there are several
   */
  record FieldCount(String field, long events) {}

  private static final JsonMapper JSON = new JsonMapper();

  TallyJson {
    verdicts = verdicts == null ? List.of() : List.copyOf(verdicts);
    fields = fields == null ? List.of() : List.copyOf(fields);
  }

  static TallyJson of(Tally tally) {
    return new TallyJson(
        tally.cells().stream()
            .map(cell -> new CellView(cell.then().orElse(null), cell.now(), cell.events()))
            .toList(),
        tally.fields().stream()
            .map(one -> new FieldCount(Differences.name(one.member(), one.field()), one.events()))
            .toList());
  }

  String write() {
    return JSON.valueToTree(this).toString();
  }

  static TallyJson read(String kept) {
    try {
      return JSON.readValue(kept, TallyJson.class);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("a tally was kept that cannot be read", e);
    }
  }
}
