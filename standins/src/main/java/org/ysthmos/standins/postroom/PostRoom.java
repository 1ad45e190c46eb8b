package org.ysthmos.standins.postroom;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.icegreen.greenmail.store.FolderException;
import com.icegreen.greenmail.store.MailFolder;
import com.icegreen.greenmail.store.StoredMessage;
import com.icegreen.greenmail.user.GreenMailUser;
import jakarta.mail.Flags;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UnsupportedEncodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
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
import org.ysthmos.standins.store.RecordLog;

/**
 * The account for school visits on a real mail server. The server keeps mails in memory, so what
 * was written on the page is put into its folders again after a restart, under new UIDs; letters
 * that came by SMTP are not. Beside IMAP and SMTP it has a page on which a person writes to the
 * garden, and sets flags as a mail program would.
 */
public final class PostRoom implements StandIn {

  static final String ADDRESS = "visits@tidewrack.example";
  static final String USER = "school-visits";
  static final List<String> FOLDERS =
      List.of("Primary schools", "Secondary schools", "Holiday club");

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final ControlledClock clock;
  private final RecordLog kept;
  private final PromptMail mail;
  private final String password;
  private final StandInServer server;

  /**
   * @throws IOException if the port of the page cannot be opened
   */
  public PostRoom(
      int port, int imapPort, int smtpPort, String password, Path data, ControlledClock clock)
      throws IOException {
    this.clock = clock;
    this.kept = new RecordLog(data.resolve("post-room.ndjson"));
    this.password = password;
    this.mail = new PromptMail(imapPort, smtpPort);
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
    kept.all().forEach(this::putBack);
    server.start();
    return this;
  }

  private void putBack(ObjectNode one) {
    try {
      byte[] raw = one.path("mail").binaryValue();
      MimeMessage message =
          new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(raw));
      append(one.path("folder").asText(), message, one.path("flagged").asBoolean(), one);
    } catch (MessagingException | IOException e) {
      throw new IllegalStateException("a mail that was kept cannot be read", e);
    }
  }

  private void append(String folder, MimeMessage message, boolean flagged, ObjectNode one) {
    Flags flags = new Flags();
    if (flagged) {
      flags.add(Flags.Flag.FLAGGED);
    }
    Date at = Date.from(Instant.parse(one.path("at").asText()));
    long unused = folder(folder).appendMessage(message, flags, at);
  }

  @Override
  public int port() {
    return server.port();
  }

  public int imapPort() {
    return mail.imap().getPort();
  }

  public int smtpPort() {
    return mail.getSmtp().getPort();
  }

  /** A mail as the page shows it. */
  record Shown(String folder, String id, String from, String subject, boolean flagged) {}

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
          id(stored),
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
      String id = message.getMessageID().replaceAll("[<>]", "");
      String folder = form.getOrDefault("folder", FOLDERS.getFirst());
      boolean flagged = !form.getOrDefault("flagged", "").isEmpty();
      ByteArrayOutputStream raw = new ByteArrayOutputStream();
      message.writeTo(raw);
      ObjectNode one = JSON.createObjectNode().put("id", id).put("folder", folder);
      one.put("flagged", flagged).put("at", clock.instant().toString());
      append(folder, message, flagged, one);
      keep(one.put("mail", raw.toByteArray()));
      return Reply.html(PostRoomPages.thanks(id));
    } catch (MessagingException | IOException e) {
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
    MailFolder folder = folder(form.getOrDefault("folder", ""));
    boolean on = form.getOrDefault("on", "yes").equals("yes");
    StoredMessage mail = find(folder, form.getOrDefault("id", ""));
    long uid = mail.getUid();
    try {
      folder.setFlags(new Flags(Flags.Flag.FLAGGED), on, uid, null, true);
    } catch (FolderException e) {
      throw new Refusal(404, "there is no such mail: " + e.getMessage());
    }
    keepFlag(form.getOrDefault("id", ""), on);
    return Reply.seeOther("/");
  }

  private static StoredMessage find(MailFolder folder, String id) {
    return folder.getMessages().stream()
        .filter(message -> id(message).equals(id))
        .findFirst()
        .orElseThrow(() -> new Refusal(404, "there is no mail “" + id + "” in this folder"));
  }

  private static String id(StoredMessage stored) {
    try {
      return String.valueOf(stored.getMimeMessage().getMessageID()).replaceAll("[<>]", "");
    } catch (MessagingException e) {
      throw new IllegalStateException("a mail that was kept cannot be read", e);
    }
  }

  private synchronized void keep(ObjectNode one) {
    kept.keep(one);
  }

  private synchronized void keepFlag(String id, boolean on) {
    kept.get(id).ifPresent(one -> kept.keep(one.deepCopy().put("flagged", on)));
  }

  /** Ends answering mail programs, as a server that is down. */
  void down() {
    mail.imap().stopService();
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
    if (!mail.imap().isRunning()) {
      mail.imap().startService();
      mail.getSmtp().startService();
    }
  }

  @Override
  public void close() {
    server.close();
    mail.stop();
  }
}
