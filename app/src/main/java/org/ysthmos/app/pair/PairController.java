package org.ysthmos.app.pair;

import java.net.URI;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.pair.PairMapper.PairRow;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.value.Value;

/** Finding pairs by either of their ids. */
@RestController
@RequestMapping(path = "/api/pairs", produces = MediaType.APPLICATION_JSON_VALUE)
class PairController {

  private static final int MOST = 50;

  /**
   * A record and what was made of it.
   *
   * @param from where the record stands
   * @param to where the task stands
   * @param task its id; empty while it was never made
   * @param page where a person sees it; empty if there is no such page
   * @param fields what both sides held when they last agreed
   * @param stands why nothing is written to it any more; empty if it is
   */
  record PairView(
      String bridge,
      String bridgeName,
      String from,
      String record,
      String to,
      String task,
      String page,
      String matchKey,
      Instant madeAt,
      Instant changedAt,
      List<AgreedField> fields,
      String stands) {}

  /** A field as text. */
  record AgreedField(String name, String text) {}

  private final PairMapper mapper;
  private final Bridges bridges;
  private final Systems systems;

  PairController(PairMapper mapper, Bridges bridges, Systems systems) {
    this.mapper = mapper;
    this.bridges = bridges;
    this.systems = systems;
  }

  /**
   * The pairs whose record or task has an id, the last changed first.
   *
   * @param id as it stands in its system, whole
   */
  @GetMapping
  List<PairView> find(@RequestParam String id) {
    String wanted = id.strip();
    List<PairRow> rows = new ArrayList<>();
    if (!wanted.isEmpty()) {
      bridgeIds().forEach(bridge -> rows.addAll(mapper.ofSource(bridge, wanted)));
      systems.all().forEach(one -> rows.addAll(mapper.ofTarget(one.description().id(), wanted)));
    }
    return rows.stream()
        .filter(row -> row.effectName() == null)
        .sorted(Comparator.comparing(PairRow::changedAt).reversed())
        .limit(MOST)
        .map(this::view)
        .distinct()
        .toList();
  }

  private Stream<String> bridgeIds() {
    return Stream.of(
            bridges.live().stream().map(one -> one.version().definition().id()),
            bridges.retired().stream().map(Bridges.Retired::id),
            bridges.broken().stream().map(Bridges.Broken::id))
        .flatMap(ids -> ids);
  }

  private PairView view(PairRow row) {
    String task = Optional.ofNullable(row.targetRecord()).orElse("");
    return new PairView(
        row.bridgeId(),
        bridges.nameOf(row.bridgeId()),
        place(row.sourceSystem(), row.sourceCollection()),
        row.sourceRecord(),
        place(row.targetSystem(), row.targetCollection()),
        task,
        systems
            .page(row.targetSystem(), row.targetCollection(), task)
            .map(URI::toString)
            .orElse(""),
        row.matchText(),
        row.madeAt(),
        row.changedAt(),
        KeptFields.read(row.agreed()).entrySet().stream()
            .map(field -> new AgreedField(field.getKey(), text(field.getValue())))
            .toList(),
        stands(row));
  }

  private static String text(Value value) {
    return value.display();
  }

  private static String stands(PairRow row) {
    if (row.takenBack()) {
      return "Its task was taken back";
    }
    return row.leftSo() ? "Others removed its task, and it is left so" : "";
  }

  private String place(String system, String collection) {
    return systems
        .find(system, collection)
        .map(shape -> shape.name() + ", " + shape.systemName())
        .orElse(system + ", " + collection);
  }
}
