package org.ysthmos.adapters.dav;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.adapters.system.Collected;
import org.ysthmos.adapters.system.Parts;
import org.ysthmos.adapters.system.PollSpec;
import org.ysthmos.adapters.system.ProtocolReader;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ValueType;

/** Reads the document of a system that keeps tasks by CalDAV: a collection is a calendar. */
public final class CalDavReader implements ProtocolReader {

  @Override
  public List<String> keys() {
    return List.of();
  }

  @Override
  public SystemDescription.Protocol protocol(DocumentNode root) {
    return TodoSystem::new;
  }

  @Override
  public SystemCollection collection(Collected of, DocumentNode node) {
    node.only("name", "record", "calendar", "due", "every", "shown-in");
    String calendar = Parts.folder(node.need("calendar"));
    String due = node.get("due").map(DocumentNode::text).orElse("day");
    if (!due.equals("day") && !due.equals("moment")) {
      throw node.need("due").refuse("a task is due on a day or at a moment");
    }
    boolean onDays = due.equals("day");
    Optional<ZoneId> zone = node.get("shown-in").map(Parts::zone);
    List<FieldShape> written = written(onDays, zone);
    List<FieldShape> read = read(written, zone);
    List<FieldShape> all = new ArrayList<>(written);
    all.addAll(read);
    return new TodoCollection(
        Parts.shape(of, node, "task", "title", "parent", all, read),
        calendar,
        onDays,
        node.get("every").map(Parts::duration).orElse(PollSpec.USUAL_INTERVAL));
  }

  /** RFC 5545 section 3.8.1.11. */
  private static Map<String, String> statuses() {
    Map<String, String> statuses = new LinkedHashMap<>();
    statuses.put("NEEDS-ACTION", "To be done");
    statuses.put("IN-PROCESS", "Under way");
    statuses.put("COMPLETED", "Done");
    statuses.put("CANCELLED", "Given up");
    return statuses;
  }

  private static List<FieldShape> written(boolean onDays, Optional<ZoneId> zone) {
    ValueType due = onDays ? ValueType.DAY : ValueType.MOMENT;
    return List.of(
        FieldShape.of("title", "Title", ValueType.TEXT).withRequired(true),
        FieldShape.of("description", "Description", ValueType.TEXT),
        FieldShape.of("due", "Due", due).withShownIn(onDays ? Optional.empty() : zone),
        FieldShape.of("status", "Status", ValueType.CHOICE).withNames(statuses()),
        FieldShape.of("priority", "Priority", ValueType.NUMBER),
        FieldShape.of("percent", "Done, in per cent", ValueType.NUMBER),
        FieldShape.of("labels", "Labels", ValueType.listOf(ValueType.TEXT)),
        FieldShape.of("link", "Link", ValueType.LINK),
        FieldShape.of("parent", "Part of", ValueType.TEXT));
  }

  /** The same as they stand in a record, with what the server adds. */
  private static List<FieldShape> read(List<FieldShape> written, Optional<ZoneId> zone) {
    List<FieldShape> read = new ArrayList<>();
    read.add(FieldShape.of("/id", "id", ValueType.TEXT).withRequired(true));
    for (FieldShape field : written) {
      ValueType type = field.type().equals(ValueType.CHOICE) ? ValueType.TEXT : field.type();
      read.add(
          FieldShape.of("/" + field.key(), field.name().toLowerCase(Locale.ROOT), type)
              .withNames(field.names())
              .withShownIn(field.shownIn()));
    }
    read.add(FieldShape.of("/tag", "tag", ValueType.TEXT));
    read.add(FieldShape.of("/changedAt", "changed at", ValueType.MOMENT).withShownIn(zone));
    return read;
  }
}
