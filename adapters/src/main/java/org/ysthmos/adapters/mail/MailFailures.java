package org.ysthmos.adapters.mail;

import jakarta.mail.AuthenticationFailedException;
import jakarta.mail.FolderNotFoundException;
import jakarta.mail.MessagingException;
import jakarta.mail.SendFailedException;
import java.net.SocketTimeoutException;
import java.util.List;
import javax.net.ssl.SSLException;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.eclipse.angus.mail.smtp.SMTPSendFailedException;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;

/** Turns what a mail server refuses into a failure with its kind. */
final class MailFailures {

  private final String name;
  private final boolean isPlain;

  /**
   * @param isPlain whether TLS does not begin with the first byte
   */
  MailFailures(String name, boolean isPlain) {
    this.name = name;
    this.isPlain = isPlain;
  }

  /** Of connecting or reading, which changes nothing. */
  Failure reading(Exception e) {
    return switch (e) {
      case AuthenticationFailedException refused -> signIn(refused);
      case FolderNotFoundException gone -> noFolder(gone.getFolder().getFullName(), List.of());
      default -> unreachable(e);
    };
  }

  /**
   * @param there some that are there; empty if they are not known
   */
  Failure noFolder(String folder, List<String> there) {
    String named = there.isEmpty() ? "" : "; there are " + String.join(", ", there);
    return Failure.of(
            FailureKind.NOT_FOUND, "%s has no folder “%s”%s".formatted(name, folder, named))
        .withRemedy("Name a folder that is there in the system's document, or make it");
  }

  /**
   * Of handing in a letter at a server that was spoken to already. Reply codes as RFC 5321 section
   * 4.2.1 has them: 4 passes by itself, 5 does not.
   */
  Failure sending(Exception e) {
    int code = code(e);
    String said = "%s answered %d: %s".formatted(name, code, e.getMessage());
    if (code / 100 == 5) {
      return Failure.of(FailureKind.VALUE_REFUSED, said)
          .withRemedy("Change the rule of what is refused, then send again");
    }
    if (code / 100 == 4) {
      return Failure.of(FailureKind.UNREACHABLE, said);
    }
    return Failure.of(FailureKind.ANSWER_UNKNOWN, name + " gave no answer (" + why(e) + ")")
        .withRemedy("It will be looked for by its key before it is tried again");
  }

  private static int code(Throwable e) {
    return switch (e) {
      case SMTPSendFailedException failed -> failed.getReturnCode();
      case SMTPAddressFailedException failed -> failed.getReturnCode();
      case SendFailedException failed when failed.getNextException() != null ->
          code(failed.getNextException());
      default -> 0;
    };
  }

  private Failure signIn(AuthenticationFailedException refused) {
    return Failure.of(
            FailureKind.NOT_SIGNED_IN,
            "%s does not let us sign in: %s".formatted(name, refused.getMessage()))
        .withRemedy("Give the connection to " + name + " a valid user and password");
  }

  private Failure unreachable(Exception e) {
    Failure failure =
        Failure.of(FailureKind.UNREACHABLE, name + " cannot be read (" + why(e) + ")");
    String said = said(e);
    if (said.contains("Unsupported or unrecognized SSL message")) {
      return failure.withRemedy(
          "What answers there speaks no TLS from the first byte; is it the port for imap:// or smtp:// ?");
    }
    if (said.contains("STARTTLS is required")) {
      return failure.withRemedy(
          "The server offers no STARTTLS, and nothing is said to it unencrypted; use imaps:// or smtps:// with their port, or ask who keeps it");
    }
    if (isBehind(e, SSLException.class)) {
      return failure.withRemedy(
          "Its certificate is not trusted or fits another name; look at it under Systems, or ask who keeps it");
    }
    if (isPlain && (said.contains("EOF") || isBehind(e, SocketTimeoutException.class))) {
      return failure.withRemedy(
          "It said nothing that is understood. If TLS is spoken from the first byte, as on ports 993 and 465, the address begins with imaps:// or smtps://");
    }
    return isBehind(e, SocketTimeoutException.class)
        ? failure.withRemedy("It is too slow; check its load, or give it a longer timeout")
        : failure.withRemedy("Check that the server is up and its address right");
  }

  /** All that is said of it, the causes too. */
  private static String said(Throwable e) {
    StringBuilder said = new StringBuilder();
    for (Throwable cause = e; cause != null; cause = cause.getCause()) {
      said.append(cause.getMessage()).append(' ');
    }
    return said.toString();
  }

  private static boolean isBehind(Throwable e, Class<? extends Throwable> kind) {
    for (Throwable cause = e; cause != null; cause = cause.getCause()) {
      if (kind.isInstance(cause)) {
        return true;
      }
    }
    return false;
  }

  static String why(Exception e) {
    Throwable cause =
        e instanceof MessagingException m && m.getNextException() != null
            ? m.getNextException()
            : e;
    return cause.getClass().getSimpleName() + ": " + cause.getMessage();
  }
}
