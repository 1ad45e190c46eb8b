package org.ysthmos.adapters.mail;

import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.util.Arrays;

/** A letter as people read it, for the trace. */
final class MailText {

  private static final int LONGEST = 16_000;

  private MailText() {}

  static String of(MimeMessage letter) throws MessagingException, IOException {
    String text =
        "From: %s\nTo: %s\nSubject: %s\nMessage-ID: %s\n\n%s"
            .formatted(
                Arrays.toString(letter.getFrom()),
                Arrays.toString(letter.getAllRecipients()),
                letter.getSubject(),
                letter.getMessageID(),
                letter.getContent());
    return text.length() <= LONGEST ? text : text.substring(0, LONGEST) + "…";
  }
}
