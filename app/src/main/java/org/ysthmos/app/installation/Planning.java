package org.ysthmos.app.installation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.bridge.RuleDifferences;
import org.ysthmos.app.installation.Plan.Does;
import org.ysthmos.app.installation.Plan.PlannedDocument;
import org.ysthmos.app.installation.Plan.PlannedResult;
import org.ysthmos.app.rehearsal.LatelyRehearsed;
import org.ysthmos.app.rehearsal.LatelyRehearsed.Lately;
import org.ysthmos.app.rehearsal.TallyWords;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.incident.AlarmPlan;
import org.ysthmos.core.text.Digest;
import org.ysthmos.core.trial.PinnedExample;
import org.ysthmos.core.trial.TrialWorld;

/** Says what applying documents would do, without doing anything. */
@Component
class Planning {

  private final List<Sort> sorts;
  private final BridgeSort bridgeSort;
  private final ExampleSort exampleSort;
  private final Bridges bridges;
  private final Systems systems;
  private final LatelyRehearsed lately;

  Planning(
      List<Sort> sorts,
      BridgeSort bridgeSort,
      ExampleSort exampleSort,
      Bridges bridges,
      Systems systems,
      LatelyRehearsed lately) {
    this.sorts = List.copyOf(sorts);
    this.bridgeSort = bridgeSort;
    this.exampleSort = exampleSort;
    this.bridges = bridges;
    this.systems = systems;
    this.lately = lately;
  }

  /** All documents that describe this installation, by path. */
  SortedMap<String, String> here() {
    SortedMap<String, String> all = new TreeMap<>();
    sorts.forEach(sort -> all.putAll(sort.here()));
    return all;
  }

  /** The sort of a document; empty if it is none of ours. */
  Optional<Sort> sortOf(String path) {
    return sorts.stream().filter(sort -> sort.owns(path)).findFirst();
  }

  /** Those that are here, and are taken away in this order: what uses others goes before them. */
  List<Sort> backwards() {
    return sorts.reversed();
  }

  /**
   * What would be done. Files that are none of ours are not looked at.
   *
   * @param folder all documents that are wanted, by path
   */
  Plan of(Map<String, String> folder) {
    return new Making(folder).plan(true);
  }

  /** The same without the results of bridges, for which other systems may be asked. */
  Plan withoutResults(Map<String, String> folder) {
    return new Making(folder).plan(false);
  }

  /** The id that the plan for a folder has just now. */
  String id(Map<String, String> folder) {
    return new Making(folder).id();
  }

  /** One plan while it is made. */
  private final class Making {

    private final SortedMap<String, String> here = here();
    private final SortedMap<String, String> wanted = new TreeMap<>();
    private final List<PlannedDocument> lines = new ArrayList<>();
    private final List<String> problems = new ArrayList<>();
    private final Map<String, BridgeVersion> compiled = new LinkedHashMap<>();

    Making(Map<String, String> folder) {
      new TreeMap<>(folder)
          .forEach((path, text) -> sortOf(path).ifPresent(sort -> read(sort, path, text)));
    }

    private void read(Sort sort, String path, String text) {
      try {
        wanted.put(path, sort.asExported(path, text));
      } catch (DocumentException | IllegalArgumentException e) {
        problems.add("%s: %s".formatted(path, e.getMessage()));
      }
    }

    Plan plan(boolean withResults) {
      List<PlannedResult> results = List.of();
      if (problems.isEmpty()) {
        Wanted changed = new Wanted(wanted, here, systems);
        compile(changed.catalog());
        checkAlarms(changed);
        checkExamples(changed);
        checkRegister();
        sorts.forEach(this::putLines);
        backwards().forEach(this::removeLines);
        results = withResults && problems.isEmpty() ? results(changed) : List.of();
      }
      return new Plan(id(), lines, results, problems);
    }

    private String id() {
      return Digest.sha256(text(here) + "\0\0" + text(wanted)).substring(0, 16);
    }

    private static String text(SortedMap<String, String> documents) {
      return documents.entrySet().stream()
          .map(one -> one.getKey() + "\0" + one.getValue())
          .collect(Collectors.joining("\0"));
    }

    /** Those that stay as they are too: what they need may be gone. */
    private void compile(Catalog catalog) {
      wanted.forEach(
          (path, text) -> {
            if (!bridgeSort.owns(path)) {
              return;
            }
            try {
              BridgeVersion version = BridgeCompiler.compile(text, 1, catalog);
              compiled.put(path, version);
              if (!text.equals(here.get(path))) {
                bridgeSort
                    .circle(version)
                    .ifPresent(circle -> problems.add("%s: %s".formatted(path, circle)));
              }
            } catch (DocumentException e) {
              problems.add("%s: %s".formatted(path, e.getMessage()));
            }
          });
      practise(catalog);
    }

    /** Bridges to practise on stand in no folder, and must be as usable as the others. */
    private void practise(Catalog catalog) {
      for (Bridges.Live live : bridges.live()) {
        if (live.hold().filter(Bridges.Hold::bySetup).isPresent()) {
          try {
            BridgeVersion unused = BridgeCompiler.compile(live.document(), 1, catalog);
          } catch (DocumentException e) {
            problems.add(
                "%s, which is there for practice: %s"
                    .formatted(live.version().definition().name(), e.getMessage()));
          }
        }
      }
    }

    private void checkAlarms(Wanted changed) {
      Optional.ofNullable(wanted.get(AlarmSort.PATH))
          .ifPresent(
              text -> {
                try {
                  AlarmPlan unused = AlarmPlan.read(text, changed);
                } catch (DocumentException e) {
                  problems.add("%s: %s".formatted(AlarmSort.PATH, e.getMessage()));
                }
              });
    }

    private void checkExamples(Wanted changed) {
      compiled.forEach(
          (path, version) -> {
            String examples = exampleSort.of(path);
            List<String> broken = new ArrayList<>();
            for (PinnedExample one : ExampleSort.read(wanted.getOrDefault(examples, ""))) {
              TrialWorld world = new TrialWorld(changed.catalog(), changed.reference().tables());
              if (!one.check(one.decide(version, world)).isEmpty()) {
                broken.add(one.name());
              }
            }
            if (!broken.isEmpty()) {
              problems.add(
                  "%s: pinned examples do not hold: %s. ./run check says what is otherwise"
                      .formatted(path, String.join(", ", broken)));
            }
          });
    }

    private void checkRegister() {
      Optional.ofNullable(wanted.get(RegisterSort.PATH)).stream()
          .flatMap(text -> RegisterDocument.read(text).keySet().stream())
          .filter(bridge -> !wanted.containsKey(bridgeSort.path(bridge)))
          .map(bridge -> "%s: the folder has no bridge %s".formatted(RegisterSort.PATH, bridge))
          .forEach(problems::add);
    }

    private void putLines(Sort sort) {
      wanted.forEach(
          (path, text) -> {
            String before = here.get(path);
            if (!sort.owns(path) || text.equals(before)) {
              return;
            }
            lines.add(
                before == null
                    ? new PlannedDocument(Does.MADE, path, List.of())
                    : new PlannedDocument(
                        Does.CHANGED, path, differences(sort, path, before, text)));
          });
    }

    private List<String> differences(Sort sort, String path, String before, String after) {
      List<String> rules =
          bridges.live(bridgeSort.id(path)).stream()
              .filter(live -> bridgeSort.owns(path))
              .flatMap(
                  live ->
                      Optional.ofNullable(compiled.get(path)).stream()
                          .flatMap(now -> RuleDifferences.between(live.version(), now).stream()))
              .map(Making::words)
              .toList();
      return rules.isEmpty() ? sort.differences(path, before, after) : rules;
    }

    private static String words(RuleDifferences.RuleDifference one) {
      String before = one.before().isEmpty() ? "nothing" : one.before();
      String after = one.after().isEmpty() ? "nothing" : one.after();
      return "%s: %s → %s".formatted(one.part(), before, after);
    }

    private void removeLines(Sort sort) {
      here.keySet().stream()
          .filter(path -> sort.owns(path) && !wanted.containsKey(path))
          .forEach(
              path -> {
                int waiting = bridgeSort.owns(path) ? bridgeSort.waiting(path) : 0;
                lines.add(
                    new PlannedDocument(
                        Does.REMOVED,
                        path,
                        waiting == 0
                            ? List.of()
                            : List.of("%d of its events wait, and pass by".formatted(waiting))));
                sort.obstacle(path)
                    .ifPresent(
                        why -> problems.add("%s cannot be removed: %s".formatted(path, why)));
              });
    }

    private List<PlannedResult> results(Wanted changed) {
      List<PlannedResult> results = new ArrayList<>();
      compiled.forEach(
          (path, version) -> {
            if (!Objects.equals(wanted.get(path), here.get(path)) || readsOther(version)) {
              results.add(result(version, changed));
            }
          });
      return results;
    }

    /** Whether anything is to be other that a bridge reads or writes. */
    private boolean readsOther(BridgeVersion version) {
      return Stream.of(
              version.tables().stream().map(id -> TableSort.FOLDER + id),
              version.calendars().stream().map(id -> CalendarSort.FOLDER + id),
              version.uses().stream().map(use -> SystemSort.FOLDER + use.thing().system()))
          .flatMap(paths -> paths)
          .distinct()
          .anyMatch(
              path ->
                  lines.stream().anyMatch(line -> line.path().equals(path + FolderSort.ENDING)));
    }

    private PlannedResult result(BridgeVersion version, Wanted changed) {
      String id = version.definition().id();
      String name = version.definition().name();
      if (version.between().isPresent()) {
        return new PlannedResult(
            id,
            name,
            0,
            0,
            List.of("it goes both ways, and what its sides held when events came is not kept"));
      }
      Lately came = lately.of(version, changed.reference(), false);
      return new PlannedResult(
          id,
          name,
          Math.toIntExact(came.tally().events()),
          Math.toIntExact(came.tally().differing()),
          TallyWords.of(came));
    }
  }
}
