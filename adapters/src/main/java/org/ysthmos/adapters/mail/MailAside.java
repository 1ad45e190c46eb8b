package org.ysthmos.adapters.mail;

import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import org.eclipse.angus.mail.imap.IMAPFolder;
import org.eclipse.angus.mail.imap.IMAPMessage;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.SetAside;
import org.ysthmos.core.text.Controls;

/** A mail that cannot be read, set aside with as much of it as can be had. */
final class MailAside {

  private MailAside() {}

  static SetAside of(IMAPFolder folder, String name, long uid, Exception why)
      throws MessagingException {
    Message mail = folder.getMessageByUID(uid);
    String subject = subject(mail);
    String what = "mail %s in %s".formatted(subject.isEmpty() ? uid : "“" + subject + "”", name);
    return new SetAside(
        Flagged.item(name, folder.getUIDValidity(), uid),
        "arrived",
        what,
        Failure.of(
                FailureKind.UNREADABLE,
                "The %s cannot be read: %s".formatted(what, MailFailures.why(why)))
            .withRemedy("Open it in a mail program; if it is needed, make its task by hand"),
        source(mail));
  }

  private static String subject(@Nullable Message mail) {
    try {
      return mail == null ? "" : Controls.without(MailRecord.subject(mail));
    } catch (MessagingException | RuntimeException unreadable) {
      // It is named by its number then.
      return "";
    }
  }

  private static String source(@Nullable Message mail) {
    if (!(mail instanceof IMAPMessage imap)) {
      return "";
    }
    try (InputStream in = imap.getMimeStream()) {
      return new String(in.readNBytes(SetAside.LONGEST_RAW), StandardCharsets.UTF_8);
    } catch (MessagingException | IOException | RuntimeException unreadable) {
      return "(nothing of it can be had: " + unreadable.getMessage() + ")";
    }
  }
}
