package org.ysthmos.app.installation;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.ysthmos.app.example.Examples;
import org.ysthmos.app.who.By;
import org.ysthmos.core.json.ExactJson;
import org.ysthmos.core.trial.PinnedExample;

/** The pinned examples of the bridges, beside them. */
@Component
@Order(5)
class ExampleSort implements Sort {

  static final String ENDING = ".examples.ndjson";
  private static final JsonMapper JSON = ExactJson.mapper();

  private final Examples examples;
  private final BridgeSort bridges;

  ExampleSort(Examples examples, BridgeSort bridges) {
    this.examples = examples;
    this.bridges = bridges;
  }

  /** The path of the examples that belong to the path of a bridge. */
  String of(String bridge) {
    return BridgeSort.FOLDER + bridges.id(bridge) + ENDING;
  }

  /**
   * @throws IllegalArgumentException if a line is no example, with its number
   */
  static List<PinnedExample> read(String text) {
    List<String> lines = text.lines().toList();
    List<PinnedExample> read = new ArrayList<>();
    for (int i = 0; i < lines.size(); i++) {
      if (lines.get(i).isBlank()) {
        continue;
      }
      try {
        read.add(PinnedExample.read(JSON.readTree(lines.get(i))));
      } catch (JsonProcessingException | IllegalArgumentException e) {
        throw new IllegalArgumentException("line %d: %s".formatted(i + 1, e.getMessage()), e);
      }
    }
    return read;
  }

  private static String write(List<PinnedExample> all) {
    return all.stream().map(one -> one.write() + "\n").collect(Collectors.joining());
  }

  @Override
  public boolean owns(String path) {
    return Paths.isIn(path, BridgeSort.FOLDER, ENDING);
  }

  @Override
  public SortedMap<String, String> here() {
    SortedMap<String, String> here = new TreeMap<>();
    for (String bridge : bridges.here().keySet()) {
      String all = examples.ndjson(bridges.id(bridge));
      if (!all.isEmpty()) {
        here.put(of(bridge), write(read(all)));
      }
    }
    return here;
  }

  @Override
  public String asExported(String path, String text) {
    return write(read(text));
  }

  @Override
  public void put(String path, String text, By by) {
    examples.replace(Paths.id(path, BridgeSort.FOLDER, ENDING), read(text));
  }

  @Override
  public void remove(String path, By by) {
    examples.replace(Paths.id(path, BridgeSort.FOLDER, ENDING), List.of());
  }
}
