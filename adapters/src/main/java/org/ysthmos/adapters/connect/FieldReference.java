package org.ysthmos.adapters.connect;

import java.util.List;
import org.ysthmos.adapters.drop.FileFields;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ValueType;

/**
 * The reference page of the fields that mails, letters, documents, tasks and files have, in
 * Markdown, made from what reads and writes them. Other records have the fields that their document
 * says.
 */
public final class FieldReference {

  private FieldReference() {}

  public static String write() {
    StringBuilder page = new StringBuilder();
    page.append("# Fields\n\n")
        .append(
            "Made from the code. Records of systems that speak JSON, and the lines of files of\n")
        .append("cells or JSON, have the fields that their document says; these have their own.\n");
    SystemCollection mails = collection(MAIL, "mails");
    read("A mail", mails.readFields(), page);
    SystemCollection letters = collection(MAIL, "letters");
    written("A letter", letters.shape().written().fields(), page);
    SystemCollection documents = collection(DOCUMENTS, "documents");
    read("A document (WebDAV)", documents.readFields(), page);
    page.append("\nFurther ones are the `properties` that are named (RFC 4918 section 4).\n");
    SystemCollection tasks = collection(TASKS, "tasks");
    read("A task (CalDAV), as it is read", tasks.readFields(), page);
    written("A task (CalDAV), as it is written", tasks.shape().written().fields(), page);
    read("An event or a task in a file of a calendar", FileFields.ofCalendars(), page);
    return page.toString();
  }

  private static final String MAIL =
      """
      system: post
      name: Post
      address: imaps://post.example
      send-address: smtps://post.example
      sign-in: { basic: { user: u, secret: s } }
      collections:
        mails: { name: Mails, folders: [INBOX] }
        letters: { name: Letters, send: { from: a@post.example } }
      """;
  private static final String DOCUMENTS =
      """
      system: library
      name: Library
      speaks: webdav
      address: https://library.example
      collections:
        documents: { name: Documents, folder: /records/ }
      """;
  private static final String TASKS =
      """
      system: calendar
      name: Calendar
      speaks: caldav
      address: https://calendar.example
      collections:
        tasks: { name: Tasks, calendar: /works/ }
      """;

  private static SystemCollection collection(String document, String id) {
    return SystemReader.read(document).collection(id);
  }

  private static void read(String title, List<FieldShape> fields, StringBuilder page) {
    page.append("\n## ")
        .append(title)
        .append("\n\n| address | what it is | type |\n|---|---|---|\n");
    fields.forEach(field -> line(field.key(), field, ", always there", page));
  }

  private static void written(String title, List<FieldShape> fields, StringBuilder page) {
    page.append("\n## ").append(title).append("\n\n| field | what it is | type |\n|---|---|---|\n");
    fields.forEach(field -> line(field.key(), field, ", needed", page));
  }

  private static void line(String key, FieldShape field, String required, StringBuilder page) {
    page.append("| `")
        .append(key)
        .append("` | ")
        .append(field.name())
        .append(field.required() ? required : "")
        .append(" | ")
        .append(field.type())
        .append(names(field))
        .append(" |\n");
    if (field.type().equals(ValueType.listOf(ValueType.RECORD))) {
      field.fields().forEach(inner -> line(key + " … " + inner.key(), inner, required, page));
    }
  }

  private static String names(FieldShape field) {
    return field.names().isEmpty() ? "" : ": " + String.join(", ", field.names().keySet());
  }
}
