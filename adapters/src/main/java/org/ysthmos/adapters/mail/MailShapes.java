package org.ysthmos.adapters.mail;

import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ValueType;

/** The fields that mails have. */
final class MailShapes {

  private MailShapes() {}

  /**
   * Of a mail that was read.
   *
   * @param zone in which its people see moments
   */
  static List<FieldShape> read(Optional<ZoneId> zone) {
    return List.of(
        FieldShape.of("/id", "message id", ValueType.TEXT).withRequired(true),
        FieldShape.of("/folder", "folder", ValueType.TEXT).withRequired(true),
        FieldShape.of("/subject", "subject", ValueType.TEXT),
        FieldShape.of("/from", "from", ValueType.TEXT),
        FieldShape.of("/fromName", "name of the sender", ValueType.TEXT),
        FieldShape.of("/replyTo", "answers go to", ValueType.TEXT),
        FieldShape.of("/to", "to", ValueType.listOf(ValueType.TEXT)),
        FieldShape.of("/cc", "copy to", ValueType.listOf(ValueType.TEXT)),
        FieldShape.of("/sentAt", "sent at", ValueType.MOMENT).withShownIn(zone),
        FieldShape.of("/arrivedAt", "arrived at", ValueType.MOMENT)
            .withRequired(true)
            .withShownIn(zone),
        FieldShape.of("/text", "text", ValueType.TEXT),
        FieldShape.of("/html", "text as a page", ValueType.TEXT),
        FieldShape.of("/cut", "longer than what is read", ValueType.FLAG),
        FieldShape.of("/unread", "what could not be read of it", ValueType.TEXT),
        FieldShape.of("/flagged", "flagged", ValueType.FLAG),
        FieldShape.of("/link", "link", ValueType.LINK).withSchemes(Set.of("mid")),
        FieldShape.of("/attachments", "attachments", ValueType.listOf(ValueType.RECORD))
            .withFields(
                List.of(
                    FieldShape.of("/name", "name", ValueType.TEXT),
                    FieldShape.of("/type", "media type", ValueType.TEXT),
                    FieldShape.of("/bytes", "size in bytes", ValueType.NUMBER),
                    FieldShape.of("/text", "text", ValueType.TEXT),
                    FieldShape.of("/link", "link", ValueType.LINK).withSchemes(Set.of("mid")))));
  }

  /** Of a letter that is sent. */
  static List<FieldShape> sent() {
    return List.of(
        FieldShape.of("to", "To", ValueType.listOf(ValueType.TEXT)).withRequired(true),
        FieldShape.of("cc", "Copy to", ValueType.listOf(ValueType.TEXT)),
        FieldShape.of("reply-to", "Answers go to", ValueType.TEXT),
        FieldShape.of("subject", "Subject", ValueType.TEXT).withRequired(true),
        FieldShape.of("text", "Text", ValueType.TEXT).withRequired(true),
        FieldShape.of("in-reply-to", "Answers the mail with the id", ValueType.TEXT));
  }
}
