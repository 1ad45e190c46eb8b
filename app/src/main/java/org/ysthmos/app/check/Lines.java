package org.ysthmos.app.check;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.json.ExactJson;
import org.ysthmos.core.trial.PinnedExample;

/** Files of the command: texts, and JSON one value a line (NDJSON). */
final class Lines {

  private static final JsonMapper JSON = ExactJson.mapper();

  private Lines() {}

  static String text(Path file) {
    try {
      return Files.readString(file);
    } catch (IOException e) {
      throw new Unusable(file + " cannot be read: " + reason(e));
    }
  }

  private static String reason(IOException e) {
    return e instanceof NoSuchFileException
        ? "there is no such file"
        : String.valueOf(e.getMessage());
  }

  /** Reads each line that is not blank; a wrong one is named by its number. */
  static <T> List<T> read(Path file, Function<JsonNode, T> read) {
    List<T> all = new ArrayList<>();
    int number = 0;
    for (String line : text(file).split("\n", -1)) {
      number++;
      if (line.isBlank()) {
        continue;
      }
      try {
        all.add(read.apply(JSON.readTree(line)));
      } catch (JsonProcessingException e) {
        throw new Unusable(
            "%s, line %d: this is no JSON: %s".formatted(file, number, e.getOriginalMessage()));
      } catch (IllegalArgumentException e) {
        throw new Unusable("%s, line %d: %s".formatted(file, number, e.getMessage()));
      }
    }
    return all;
  }

  static void write(Path file, List<PinnedExample> examples) {
    StringBuilder lines = new StringBuilder();
    examples.forEach(example -> lines.append(example.write()).append('\n'));
    try {
      Files.writeString(file, lines);
    } catch (IOException e) {
      throw new Unusable(file + " cannot be written: " + reason(e));
    }
  }

  /** Every problem of a document, each on a line that starts with file, line and column. */
  static String problems(Path file, DocumentException refused) {
    return refused.problems().stream()
        .map(problem -> file + place(problem) + ": " + problem.message())
        .collect(Collectors.joining("\n"));
  }

  private static String place(DocumentProblem problem) {
    String where = problem.line() == 0 ? "" : ":" + problem.line() + ":" + problem.column();
    return problem.path().isEmpty() ? where : where + ": " + problem.path();
  }
}
