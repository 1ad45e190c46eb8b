package org.ysthmos.adapters.drop;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/** Lines of cells under a line of headers (RFC 4180, with other separators). */
final class CellFile {

  private final String text;
  private final FileForm form;
  private final String separator;
  private final boolean ended;

  private CellFile(String text, FileForm form, String separator) {
    this.text = text;
    this.form = form;
    this.separator = separator;
    this.ended = text.endsWith("\n") || text.endsWith("\r");
  }

  static FileRecords read(String text, FileForm form) throws Unreadable {
    String separator = form.separator().orElseGet(() -> found(text));
    List<JsonNode> records = new CellFile(text, form, separator).records();
    boolean usual = form.separator().isPresent() || separator.equals(",");
    return new FileRecords(
        records,
        usual
            ? List.of()
            : List.of(
                "has cells parted by “%s”; state the separator in the document"
                    .formatted(FileForm.shown(separator))));
  }

  /** The separator that parts the first line into the most cells; a comma if none does. */
  private static String found(String text) {
    String first = text.lines().filter(line -> !line.isBlank()).findFirst().orElse("");
    String unquoted = first.replaceAll("\"[^\"]*\"", "");
    String most = ",";
    for (String one : FileForm.separators()) {
      if (count(unquoted, one) > count(unquoted, most)) {
        most = one;
      }
    }
    return most;
  }

  private static int count(String text, String sign) {
    return text.split(java.util.regex.Pattern.quote(sign), -1).length - 1;
  }

  private List<JsonNode> records() throws Unreadable {
    CSVFormat format =
        CSVFormat.RFC4180.builder().setDelimiter(separator).setIgnoreEmptyLines(true).get();
    List<JsonNode> records = new ArrayList<>();
    try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
      List<String> headers = List.of();
      for (CSVRecord line : parser) {
        if (line.stream().allMatch(String::isBlank)) {
          continue;
        }
        if (headers.isEmpty()) {
          headers = headers(line);
        } else {
          records.add(record(line, headers, parser.getCurrentLineNumber()));
        }
      }
    } catch (IOException
        | UncheckedIOException
        | IllegalArgumentException
        | IllegalStateException e) {
      String why = String.valueOf(e.getMessage());
      // A quote that is opened and never closed.
      throw why.contains("EOF") ? Unreadable.cut(no(why)) : new Unreadable(no(why));
    }
    return records;
  }

  private static String no(String why) {
    return "it is no CSV: " + why;
  }

  private ObjectNode record(CSVRecord line, List<String> headers, long number) throws Unreadable {
    if (line.size() != headers.size()) {
      String why =
          "line %d has %d cells where the first line has %d"
              .formatted(number, line.size(), headers.size());
      boolean last = !ended && number >= text.lines().count();
      throw last && line.size() < headers.size() ? Unreadable.cut(why) : new Unreadable(why);
    }
    ObjectNode record = JsonNodeFactory.instance.objectNode();
    for (int i = 0; i < headers.size(); i++) {
      String header = headers.get(i);
      record.put(header, form.customs().cell(header, line.get(i), number));
    }
    return record;
  }

  private List<String> headers(CSVRecord line) throws Unreadable {
    List<String> headers = line.stream().map(String::strip).toList();
    Set<String> met = new HashSet<>();
    for (String header : headers) {
      if (!met.add(header)) {
        throw new Unreadable("the header “%s” stands twice in the first line".formatted(header));
      }
    }
    if (headers.size() == 1) {
      Optional<String> other = FileForm.otherSeparator(headers.getFirst(), separator);
      if (other.isPresent()) {
        throw new Unreadable(
            "its cells seem to be parted by “%s” and not by “%s”; state the separator in the document"
                .formatted(other.get(), FileForm.shown(separator)));
      }
    }
    return headers;
  }
}
