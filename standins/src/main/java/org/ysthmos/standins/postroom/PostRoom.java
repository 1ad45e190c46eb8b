package org.ysthmos.standins.postroom;

import com.icegreen.greenmail.store.FolderException;
import com.icegreen.greenmail.store.MailFolder;
import com.icegreen.greenmail.store.StoredMessage;
import com.icegreen.greenmail.user.GreenMailUser;
import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.Flags;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import java.io.IOException;
import java.io.UnsupportedEncodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.UUID;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Reply;
import org.ysthmos.standins.http.Request;
import org.ysthmos.standins.http.Routes;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.http.StandInServer;

/**
 * The account for school visits on a real mail server, which keeps mails in memory, so that a
 * restart gives its folders new UIDs. Beside IMAP and SMTP it has a page on which a person writes
 * to the garden, and sets flags as a mail program would.
 */
public final class PostRoom implements StandIn {

  static final String ADDRESS = "visits@tidewrack.example";
  static final String USER = "school-visits";
  static final List<String> FOLDERS =
      List.of("Primary schools", "Secondary schools", "Holiday club");

  private final ControlledClock clock;
  private final GreenMail mail;
  private final String password;
  private final StandInServer server;

  /**
   * @throws IOException if the port of the page cannot be opened
   */
  public PostRoom(int port, int imapPort, int smtpPort, String password, ControlledClock clock)
      throws IOException {
    this.clock = clock;
    this.password = password;
    this.mail =
        new GreenMail(
            new ServerSetup[] {
              new ServerSetup(imapPort, "127.0.0.1", ServerSetup.PROTOCOL_IMAP),
              new ServerSetup(smtpPort, "127.0.0.1", ServerSetup.PROTOCOL_SMTP)
            });
    Routes routes =
        new Routes()
            .open("GET", "/", request -> Reply.html(PostRoomPages.room(folders(), password)))
            .open("POST", "/mails", this::write)
            .open("POST", "/flags", this::flag);
    this.server = new StandInServer(port, "", "", clock, routes, new MailFaults(this));
  }

  @Override
  public PostRoom start() {
    mail.start();
    GreenMailUser user = mail.setUser(ADDRESS, USER, password);
    for (String folder : FOLDERS) {
      if (mail.getManagers().getImapHostManager().getFolder(user, folder) == null) {
        create(folder);
      }
    }
    server.start();
    return this;
  }

  @Override
  public int port() {
    return server.port();
  }

  public int imapPort() {
    return mail.getImap().getPort();
  }

  public int smtpPort() {
    return mail.getSmtp().getPort();
  }

  /** A mail as the page shows it. */
  record Shown(String folder, long uid, String from, String subject, boolean flagged) {}

  private GreenMailUser user() {
    return mail.getUserManager().getUser(USER);
  }

  private void create(String folder) {
    try {
      mail.getManagers().getImapHostManager().createMailbox(user(), folder);
    } catch (com.icegreen.greenmail.imap.AuthorizationException | FolderException e) {
      throw new IllegalStateException("the folder " + folder + " cannot be made", e);
    }
  }

  private MailFolder folder(String name) {
    MailFolder folder = mail.getManagers().getImapHostManager().getFolder(user(), name);
    if (folder == null) {
      throw new Refusal(404, "there is no folder “" + name + "”");
    }
    return folder;
  }

  private List<Shown> folders() {
    List<Shown> shown = new ArrayList<>();
    try {
      for (MailFolder folder : mail.getManagers().getImapHostManager().listMailboxes(user(), "*")) {
        for (StoredMessage message : folder.getMessages()) {
          shown.add(shown(folder.getName(), message));
        }
      }
    } catch (FolderException e) {
      throw new IllegalStateException("the folders cannot be listed", e);
    }
    return shown;
  }

  private static Shown shown(String folder, StoredMessage stored) {
    try {
      MimeMessage message = stored.getMimeMessage();
      return new Shown(
          folder,
          stored.getUid(),
          InternetAddress.toUnicodeString(message.getFrom()),
          String.valueOf(message.getSubject()),
          stored.isSet(Flags.Flag.FLAGGED));
    } catch (MessagingException e) {
      throw new IllegalStateException("a mail that was kept cannot be read", e);
    }
  }

  /** A mail from outside, put where the account's rules put it. */
  private Reply write(Request request) {
    Map<String, String> form = request.form();
    try {
      MimeMessage message = message(form);
      Flags flags = new Flags();
      if (!form.getOrDefault("flagged", "").isEmpty()) {
        flags.add(Flags.Flag.FLAGGED);
      }
      folder(form.getOrDefault("folder", FOLDERS.getFirst()))
          .appendMessage(message, flags, Date.from(clock.instant()));
      return Reply.html(PostRoomPages.thanks(message.getMessageID().replaceAll("[<>]", "")));
    } catch (MessagingException | UnsupportedEncodingException e) {
      throw new Refusal(422, "this is no mail: " + e.getMessage());
    }
  }

  private MimeMessage message(Map<String, String> form)
      throws MessagingException, UnsupportedEncodingException {
    String from = form.getOrDefault("from", "");
    String id = "<" + UUID.randomUUID() + "@" + from.replaceFirst(".*@", "") + ">";
    MimeMessage message =
        new MimeMessage(Session.getInstance(new Properties())) {
          @Override
          protected void updateMessageID() throws MessagingException {
            setHeader("Message-ID", id);
          }
        };
    message.setFrom(new InternetAddress(from, form.getOrDefault("name", ""), "UTF-8"));
    message.setRecipient(Message.RecipientType.TO, new InternetAddress(ADDRESS));
    message.setSubject(form.getOrDefault("subject", ""), StandardCharsets.UTF_8.name());
    message.setSentDate(Date.from(clock.instant()));
    String text = form.getOrDefault("text", "");
    String attached = form.getOrDefault("list", "");
    if (attached.isEmpty()) {
      message.setContent(PostRoomPages.asPage(text), "text/html; charset=UTF-8");
    } else {
      MimeBodyPart body = new MimeBodyPart();
      body.setText(text, StandardCharsets.UTF_8.name());
      MimeBodyPart list = new MimeBodyPart();
      list.setContent(attached, "text/csv; charset=UTF-8");
      list.setFileName("names.csv");
      message.setContent(new MimeMultipart(body, list));
    }
    message.saveChanges();
    return message;
  }

  private Reply flag(Request request) {
    Map<String, String> form = request.form();
    long uid = Long.parseLong(form.getOrDefault("uid", "0"));
    MailFolder folder = folder(form.getOrDefault("folder", ""));
    boolean on = form.getOrDefault("on", "yes").equals("yes");
    try {
      folder.setFlags(new Flags(Flags.Flag.FLAGGED), on, uid, null, true);
    } catch (FolderException e) {
      throw new Refusal(404, "there is no such mail: " + e.getMessage());
    }
    return Reply.seeOther("/");
  }

  /** Ends answering mail programs, as a server that is down. */
  void down() {
    mail.getImap().stopService();
    mail.getSmtp().stopService();
  }

  void lockOut() {
    user().setPassword("changed-" + UUID.randomUUID());
  }

  /** Makes the folders anew with the same mails: the same mails under other UIDs. */
  void renewFolders() {
    var host = mail.getManagers().getImapHostManager();
    for (String name : FOLDERS) {
      List<StoredMessage> kept = List.copyOf(folder(name).getMessages());
      try {
        host.deleteMailbox(user(), name);
        create(name);
        for (StoredMessage message : kept) {
          folder(name)
              .appendMessage(
                  new MimeMessage(message.getMimeMessage()),
                  message.getFlags(),
                  message.getReceivedDate());
        }
      } catch (FolderException
          | com.icegreen.greenmail.imap.AuthorizationException
          | MessagingException e) {
        throw new IllegalStateException("the folder " + name + " cannot be made anew", e);
      }
    }
  }

  /** Answers again, and lets the account in again. */
  void recover() {
    user().setPassword(password);
    if (!mail.getImap().isRunning()) {
      mail.getImap().startService();
      mail.getSmtp().startService();
    }
  }

  @Override
  public void close() {
    server.close();
    mail.stop();
  }
}
