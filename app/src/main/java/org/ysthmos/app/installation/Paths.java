package org.ysthmos.app.installation;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.ysthmos.core.document.DocumentNode;

/** Paths of documents, which are called by their ids, and how their lines differ. */
final class Paths {

  private Paths() {}

  static boolean isIn(String path, String folder, String ending) {
    return path.startsWith(folder)
        && path.endsWith(ending)
        && DocumentNode.isId(id(path, folder, ending));
  }

  /** The id by which a document is called. */
  static String id(String path, String folder, String ending) {
    return path.length() < folder.length() + ending.length()
        ? ""
        : path.substring(folder.length(), path.length() - ending.length());
  }

  /** How many lines came and went, for what has no better words. */
  static List<String> lines(String before, String after) {
    Map<String, Integer> counts = new HashMap<>();
    before.lines().forEach(line -> counts.merge(line, -1, Integer::sum));
    after.lines().forEach(line -> counts.merge(line, 1, Integer::sum));
    int came = counts.values().stream().filter(count -> count > 0).mapToInt(Math::abs).sum();
    int went = counts.values().stream().filter(count -> count < 0).mapToInt(Math::abs).sum();
    List<String> words = new ArrayList<>();
    if (came > 0) {
      words.add(counted(came) + " added");
    }
    if (went > 0) {
      words.add(counted(went) + " taken out");
    }
    boolean moved = words.isEmpty() && !Objects.equals(before, after);
    return moved ? List.of("lines moved") : List.of(String.join(", ", words));
  }

  private static String counted(int count) {
    return count == 1 ? "1 line" : count + " lines";
  }
}
