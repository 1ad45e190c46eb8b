package org.ysthmos.adapters.mail;

import jakarta.mail.Address;
import jakarta.mail.Flags;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.Transport;
import jakarta.mail.internet.AddressException;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.UnsupportedEncodingException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.TaskGateway.Effect;
import org.ysthmos.core.text.Controls;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Value;

/**
 * Writes letters and hands them in. The Message-ID comes of the idempotency key, so that a letter
 * which had to be sent twice is the same letter to whoever gets it.
 */
final class LetterPost {

  /** A letter that cannot be written. */
  static final class Unwritable extends Exception {
    private final transient Failure failure;

    Unwritable(Failure failure) {
      super(failure.message());
      this.failure = failure;
    }

    Failure failure() {
      return failure;
    }
  }

  private final MailAccount account;
  private final InstantSource clock;

  LetterPost(MailAccount account, InstantSource clock) {
    this.account = account;
    this.clock = clock;
  }

  /** The Message-ID of the letter with a key, without its brackets. */
  static String id(LetterCollection collection, String idempotencyKey) {
    String address = collection.from().getAddress();
    return idempotencyKey + address.substring(address.lastIndexOf('@'));
  }

  MimeMessage write(LetterCollection collection, Effect effect)
      throws Unwritable, MessagingException {
    String id = "<" + id(collection, effect.idempotencyKey()) + ">";
    MimeMessage letter = new WithId(account.session(), id);
    letter.setFrom(named(collection.from()));
    letter.setRecipients(Message.RecipientType.TO, addresses("to", effect));
    letter.setRecipients(Message.RecipientType.CC, addresses("cc", effect));
    if (letter.getAllRecipients() == null) {
      throw refused("to", "", "a letter goes to somebody");
    }
    letter.setReplyTo(addresses("reply-to", effect));
    letter.setSubject(oneLine(text("subject", effect)), StandardCharsets.UTF_8.name());
    letter.setText(text("text", effect), StandardCharsets.UTF_8.name());
    String answers = oneLine(text("in-reply-to", effect)).replaceAll("[<> ]", "");
    if (!answers.isEmpty()) {
      letter.setHeader("In-Reply-To", "<" + answers + ">");
      letter.setHeader("References", "<" + answers + ">");
    }
    letter.setSentDate(Date.from(clock.instant()));
    // A letter of a machine; RFC 3834 section 5 keeps it from being answered by machines.
    letter.setHeader("Auto-Submitted", "auto-generated");
    letter.setFlag(Flags.Flag.SEEN, true);
    letter.saveChanges();
    return letter;
  }

  /**
   * Hands a letter in.
   *
   * @throws Unopened if the server could not be spoken to, so that nothing was handed in
   */
  void send(URI address, MimeMessage letter) throws Unopened, MessagingException {
    Transport opened;
    try {
      opened = account.send(address);
    } catch (MessagingException e) {
      throw new Unopened(e);
    }
    try {
      opened.sendMessage(letter, letter.getAllRecipients());
    } catch (MessagingException e) {
      close(opened, e);
      throw e;
    }
    close(opened, null);
  }

  /**
   * Says good-bye. The server has answered for the letter already, so that what goes wrong from
   * here on takes nothing from it: a letter that is taken for unsent would be sent again.
   */
  private static void close(Transport transport, @Nullable MessagingException before) {
    try {
      transport.close();
    } catch (MessagingException e) {
      if (before != null) {
        before.addSuppressed(e);
      }
    }
  }

  /** The server could not be spoken to. */
  static final class Unopened extends Exception {
    private final MessagingException why;

    Unopened(MessagingException why) {
      super(why);
      this.why = why;
    }

    MessagingException why() {
      return why;
    }
  }

  private static Address[] addresses(String field, Effect effect) throws Unwritable {
    List<Address> addresses = new ArrayList<>();
    for (String written : texts(effect.fields().get(field))) {
      try {
        for (InternetAddress address : InternetAddress.parse(oneLine(written), true)) {
          address.validate();
          addresses.add(named(address));
        }
      } catch (AddressException e) {
        throw refused(field, written, "“" + written + "” is no mail address: " + e.getMessage());
      }
    }
    return addresses.toArray(Address[]::new);
  }

  /** The name beside an address as encoded words (RFC 2047), which every server takes. */
  private static InternetAddress named(InternetAddress address) {
    String name = address.getPersonal();
    if (name == null) {
      return address;
    }
    try {
      InternetAddress encoded = (InternetAddress) address.clone();
      encoded.setPersonal(name, StandardCharsets.UTF_8.name());
      return encoded;
    } catch (UnsupportedEncodingException e) {
      throw new IllegalStateException("every Java has UTF-8", e);
    }
  }

  private static Unwritable refused(String field, String value, String why) {
    return new Unwritable(
        Failure.of(FailureKind.VALUE_REFUSED, why)
            .withField(field, value)
            .withRemedy("Change the rule of the field, then send again"));
  }

  private static List<String> texts(@Nullable Value value) {
    return switch (value) {
      case null -> List.of();
      case ListValue list ->
          list.items().stream().map(LetterPost::display).filter(one -> !one.isBlank()).toList();
      case Value one -> one.display().isBlank() ? List.of() : List.of(display(one));
    };
  }

  private static String display(Value value) {
    return Controls.without(value.display());
  }

  private static String text(String field, Effect effect) {
    return String.join("\n", texts(effect.fields().get(field)));
  }

  /** A line end in a header would begin another header. */
  private static String oneLine(String text) {
    return text.replaceAll("[\\r\\n]+", " ").strip();
  }

  private static final class WithId extends MimeMessage {
    private final String id;

    WithId(Session session, String id) {
      super(session);
      this.id = id;
    }

    @Override
    protected void updateMessageID() throws MessagingException {
      setHeader("Message-ID", id);
    }
  }
}
