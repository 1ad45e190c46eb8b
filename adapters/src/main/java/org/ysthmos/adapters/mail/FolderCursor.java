package org.ysthmos.adapters.mail;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.NavigableSet;
import java.util.TreeSet;

/**
 * How far a folder was read.
 *
 * @param validity the folder's UIDVALIDITY; under another one its UIDs mean other mails
 * @param next the UID from which mails are new
 * @param anew whether the folder is read from its beginning, because its UIDs changed their meaning
 * @param flagged the UIDs of flagged mails, where an earlier form of the cursor held them
 */
record FolderCursor(long validity, long next, boolean anew, NavigableSet<Long> flagged) {

  /** The same folder, read up to another UID. */
  FolderCursor at(long uid) {
    return new FolderCursor(validity, uid, anew, new TreeSet<>());
  }

  private static final JsonMapper JSON = JsonMapper.builder().build();

  /**
   * Where a pass over several folders stands.
   *
   * @param folder which of them is read now, counted from 0
   * @param cursors how far each was read
   */
  record Pass(int folder, Map<String, FolderCursor> cursors) {

    static final Pass BEGINNING = new Pass(0, Map.of());

    Pass with(String name, FolderCursor cursor) {
      Map<String, FolderCursor> more = new LinkedHashMap<>(cursors);
      more.put(name, cursor);
      return new Pass(folder, more);
    }

    Pass at(int other) {
      return new Pass(other, cursors);
    }

    String write() {
      ObjectNode root = JSON.createObjectNode().put("folder", folder);
      ObjectNode folders = root.putObject("marks");
      cursors.forEach(
          (name, cursor) ->
              folders
                  .putObject(name)
                  .put("validity", cursor.validity())
                  .put("next", cursor.next())
                  .put("anew", cursor.anew()));
      return root.toString();
    }

    static Pass read(String text) {
      try {
        JsonNode root = JSON.readTree(text);
        Map<String, FolderCursor> cursors = new LinkedHashMap<>();
        root.path("marks")
            .properties()
            .forEach(
                entry ->
                    cursors.put(
                        entry.getKey(),
                        new FolderCursor(
                            entry.getValue().path("validity").asLong(),
                            entry.getValue().path("next").asLong(),
                            entry.getValue().path("anew").asBoolean(),
                            UidSet.read(entry.getValue().path("flagged").asText()))));
        return new Pass(root.path("folder").asInt(), cursors);
      } catch (JsonProcessingException e) {
        throw new IllegalStateException("a cursor that we wrote cannot be read: " + text, e);
      }
    }
  }
}
