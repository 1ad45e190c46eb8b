package org.ysthmos.adapters.mail;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.NavigableSet;

/**
 * How far a folder was read.
 *
 * @param validity the folder's UIDVALIDITY; under another one its UIDs mean other mails
 * @param next the UID from which mails are new
 * @param flagged the UIDs of the mails that were flagged
 * @param anew whether the folder is read from its beginning, because its UIDs changed their meaning
 */
record FolderMark(long validity, long next, NavigableSet<Long> flagged, boolean anew) {

  private static final JsonMapper JSON = JsonMapper.builder().build();

  /**
   * Where a pass over several folders stands.
   *
   * @param folder which of them is read now, counted from 0
   * @param marks how far each was read
   */
  record Pass(int folder, Map<String, FolderMark> marks) {

    static final Pass BEGINNING = new Pass(0, Map.of());

    Pass with(String name, FolderMark mark) {
      Map<String, FolderMark> more = new LinkedHashMap<>(marks);
      more.put(name, mark);
      return new Pass(folder, more);
    }

    Pass at(int other) {
      return new Pass(other, marks);
    }

    String write() {
      ObjectNode root = JSON.createObjectNode().put("folder", folder);
      ObjectNode folders = root.putObject("marks");
      marks.forEach(
          (name, mark) ->
              folders
                  .putObject(name)
                  .put("validity", mark.validity())
                  .put("next", mark.next())
                  .put("flagged", UidSet.write(mark.flagged()))
                  .put("anew", mark.anew()));
      return root.toString();
    }

    static Pass read(String text) {
      try {
        JsonNode root = JSON.readTree(text);
        Map<String, FolderMark> marks = new LinkedHashMap<>();
        root.path("marks")
            .properties()
            .forEach(
                entry ->
                    marks.put(
                        entry.getKey(),
                        new FolderMark(
                            entry.getValue().path("validity").asLong(),
                            entry.getValue().path("next").asLong(),
                            UidSet.read(entry.getValue().path("flagged").asText()),
                            entry.getValue().path("anew").asBoolean())));
        return new Pass(root.path("folder").asInt(), marks);
      } catch (JsonProcessingException e) {
        throw new IllegalStateException("a mark that we wrote cannot be read: " + text, e);
      }
    }
  }
}
