package org.ysthmos.app.installation;

import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.ysthmos.app.command.Refused;

/** The documents of an installation in a folder. Other files there are left alone. */
final class DocumentFolder {

  /** What may be one of ours; which sort it is, the installation says. */
  private static final Pattern OURS =
      Pattern.compile(
          "(systems|calendars|tables|bridges)/[^/]+\\.yaml|bridges/[^/]+\\.examples\\.ndjson"
              + "|alarms\\.yaml|register\\.yaml");

  private final Path folder;

  DocumentFolder(Path folder) {
    this.folder = folder;
  }

  /**
   * All that stands in it.
   *
   * @throws Refused if there is no such folder, or a file is no text
   */
  SortedMap<String, String> read() throws IOException {
    if (!Files.isDirectory(folder)) {
      throw new Refused("There is no folder " + folder + ".");
    }
    SortedMap<String, String> documents = new TreeMap<>();
    for (String path : paths()) {
      try {
        documents.put(path, Files.readString(folder.resolve(path)));
      } catch (MalformedInputException e) {
        throw new Refused(folder.resolve(path) + " is no text in UTF-8.", e);
      }
    }
    return documents;
  }

  private List<String> paths() throws IOException {
    List<String> paths = new ArrayList<>();
    try (Stream<Path> all = Files.walk(folder, 2)) {
      all.filter(Files::isRegularFile)
          .map(file -> folder.relativize(file).toString().replace('\\', '/'))
          .filter(path -> OURS.matcher(path).matches())
          .sorted()
          .forEach(paths::add);
    }
    return paths;
  }

  /**
   * Writes documents, and takes away those of ours that are none of them any more.
   *
   * @return the paths that came, went or changed
   */
  List<String> write(Map<String, String> documents) throws IOException {
    Files.createDirectories(folder);
    SortedMap<String, String> before = read();
    List<String> touched = new ArrayList<>();
    for (Map.Entry<String, String> one : new TreeMap<>(documents).entrySet()) {
      if (!one.getValue().equals(before.remove(one.getKey()))) {
        Path file = folder.resolve(one.getKey());
        Files.createDirectories(file.getParent());
        Files.writeString(file, one.getValue());
        touched.add(one.getKey());
      }
    }
    for (String gone : before.keySet()) {
      Files.delete(folder.resolve(gone));
      touched.add(gone);
    }
    return touched;
  }
}
