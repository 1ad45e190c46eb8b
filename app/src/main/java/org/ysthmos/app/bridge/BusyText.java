package org.ysthmos.app.bridge;

import java.time.Instant;
import java.util.EnumMap;
import java.util.Map;
import java.util.stream.Collectors;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.guard.BusyPast;

/** How the busy times stand with a version from which its ceiling was reckoned: a line for each. */
final class BusyText {

  private BusyText() {}

  static String write(Map<EffectKind, BusyPast> busy) {
    return busy.entrySet().stream()
        .map(
            one ->
                "%s %d %d"
                    .formatted(
                        one.getKey(),
                        one.getValue().effects(),
                        one.getValue().from().getEpochSecond()))
        .collect(Collectors.joining("\n"));
  }

  static Map<EffectKind, BusyPast> read(String kept) {
    Map<EffectKind, BusyPast> busy = new EnumMap<>(EffectKind.class);
    for (String line : kept.lines().toList()) {
      String[] parts = line.split(" ", -1);
      Instant from = Instant.ofEpochSecond(Long.parseLong(parts[2]));
      busy.put(EffectKind.valueOf(parts[0]), new BusyPast(Long.parseLong(parts[1]), from));
    }
    return busy;
  }
}
