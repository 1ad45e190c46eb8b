package org.ysthmos.core.recurrence;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;

/**
 * The worked examples of RFC 5545 section 3.8.5.3; where their dates come from stands in the file.
 */
class Rfc5545ExamplesTest {

  private static final Path EXAMPLES = Path.of("src/test/resources/recurrence/rfc5545-3.8.5.3.txt");
  private static final DateTimeFormatter BASIC = DateTimeFormatter.ofPattern("uuuuMMdd'T'HHmmss");
  private static final ZoneId NEW_YORK = ZoneId.of("America/New_York");

  @TestFactory
  Stream<DynamicTest> examples() throws IOException {
    return Files.readAllLines(EXAMPLES).stream()
        .filter(line -> !line.startsWith("#"))
        .map(line -> line.split("\\|", -1))
        .map(parts -> DynamicTest.dynamicTest(parts[0], () -> holds(parts)));
  }

  private static void holds(String[] parts) {
    TreeSet<LocalDateTime> without = new TreeSet<>();
    if (!parts[3].isEmpty()) {
      without.add(LocalDateTime.parse(parts[3], BASIC));
    }
    Recurrence recurrence =
        new Recurrence(
            Optional.of(RecurrenceRule.parse(parts[2])),
            NEW_YORK,
            LocalDateTime.parse(parts[1], BASIC),
            Optional.empty(),
            without,
            new TreeSet<>(),
            OffDays.KEEP,
            Optional.empty());
    List<String> expected = List.of(parts[4].split(" "));
    boolean ends = parts[5].equals("end");
    Occurrences times = new Occurrences(recurrence, Optional.empty());
    assertThat(times.after(Instant.EPOCH, ends ? 1000 : expected.size()))
        .extracting(one -> BASIC.format(one.at()))
        .containsExactlyElementsOf(expected);
  }
}
