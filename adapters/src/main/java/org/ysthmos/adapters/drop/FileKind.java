package org.ysthmos.adapters.drop;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.ysthmos.core.json.ExactJson;

/** What files hold. */
enum FileKind {
  /** Lines of cells under a line of headers. */
  CSV {
    @Override
    FileRecords read(String text, FileForm form) throws Unreadable {
      return CellFile.read(text, form);
    }
  },
  /** A JSON object a line. */
  NDJSON {
    @Override
    FileRecords read(String text, FileForm form) throws Unreadable {
      List<String> lines = text.lines().toList();
      List<JsonNode> records = new ArrayList<>();
      for (int i = 0; i < lines.size(); i++) {
        if (lines.get(i).isBlank()) {
          continue;
        }
        boolean last = i == lines.size() - 1 && !text.endsWith("\n");
        try {
          JsonNode record = JSON.readTree(lines.get(i));
          if (!record.isObject()) {
            throw new Unreadable("line " + (i + 1) + " is no JSON object");
          }
          records.add(record);
        } catch (JsonProcessingException e) {
          String why = "line " + (i + 1) + " is no JSON: " + e.getOriginalMessage();
          throw last ? Unreadable.cut(why) : new Unreadable(why);
        }
      }
      return new FileRecords(records, List.of());
    }
  },
  /** Events and tasks of a calendar (RFC 5545). */
  ICALENDAR {
    @Override
    FileRecords read(String text, FileForm form) throws Unreadable {
      return CalendarFile.read(text, form);
    }
  };

  private static final JsonMapper JSON = ExactJson.mapper();

  /**
   * The records of a file.
   *
   * @param form how it is written
   * @throws Unreadable if one of them cannot be read
   */
  abstract FileRecords read(String text, FileForm form) throws Unreadable;

  static Optional<FileKind> parse(String word) {
    return List.of(values()).stream()
        .filter(kind -> kind.name().toLowerCase(Locale.ROOT).equals(word))
        .findFirst();
  }
}
