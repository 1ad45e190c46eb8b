package org.ysthmos.standins.past;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.random.RandomGenerator;
import org.ysthmos.standins.http.StandInServer;

/** What the people of the garden say and write, by the names of its sections. */
final class Words {

  private final Map<String, List<List<String>>> sections = new LinkedHashMap<>();

  private Words() {}

  static Words read() {
    Words words = new Words();
    List<List<String>> section = new ArrayList<>();
    for (String line : StandInServer.resource("/past/words.txt").lines().toList()) {
      if (line.startsWith("[")) {
        section = new ArrayList<>();
        words.sections.put(line.substring(1, line.length() - 1), section);
      } else if (!line.isBlank() && !line.startsWith("#")) {
        section.add(List.of(line.split("\\|", -1)));
      }
    }
    return words;
  }

  List<List<String>> all(String section) {
    List<List<String>> all = sections.get(section);
    if (all == null) {
      throw new IllegalArgumentException("there is no section " + section);
    }
    return all;
  }

  /** The parts of any entry. */
  List<String> any(String section, RandomGenerator random) {
    List<List<String>> all = all(section);
    return all.get(random.nextInt(all.size()));
  }

  /** Any entry of one part. */
  String one(String section, RandomGenerator random) {
    return any(section, random).getFirst();
  }
}
