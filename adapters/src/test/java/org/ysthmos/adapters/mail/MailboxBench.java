package org.ysthmos.adapters.mail;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.mail.FetchProfile;
import jakarta.mail.Folder;
import jakarta.mail.Message;
import jakarta.mail.Session;
import jakarta.mail.Store;
import jakarta.mail.UIDFolder;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Optional;
import java.util.Properties;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.adapters.Measured;
import org.ysthmos.adapters.MetItems;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.gateway.SystemGateway;

/** {@code bench/servers}: a large mailbox at a server that we did not write. */
class MailboxBench {

  private static final int MAILS = 50_000;

  /** The yardstick opens the folder and asks for the number of each mail, and does no more. */
  @Test
  void idlePassOverALargeMailbox(@TempDir Path folder) throws Exception {
    try (Dovecot server = Dovecot.start(folder, "ssl = no")) {
      server.mailbox("visits");
      for (int i = 0; i < MAILS; i++) {
        server.put(
            "visits",
            "INBOX",
            "%06d.mail".formatted(i),
            "Message-ID: <%d@bench.example>\nFrom: a@b.example\nSubject: Mail %d\n\nText\n"
                .formatted(i, i));
      }
      String document =
          """
          system: post
          name: Post
          address: imap://127.0.0.1:%d
          sign-in: { basic: { user: visits, secret: word } }
          timeout: PT60S
          collections:
            mails: { name: Mails, folders: [INBOX] }
          """;
      try (SystemGateway system =
          SystemReader.read(document.formatted(server.port()))
              .open(new Surroundings(name -> Optional.of("s3cret"), Instant::now))) {
        MetItems met = new MetItems(system, "mails");
        met.pass();
        double yardstick = Measured.median(3, () -> numbered(server.port()));
        double pass = Measured.median(3, () -> idle(met));
        Measured.print("mailbox, idle pass over " + MAILS, pass, yardstick);
        Measured.printGrowth("mailbox, " + MAILS, 5, () -> idle(met));
      }
    }
  }

  private static Object idle(MetItems met) {
    assertThat(met.pass()).isEmpty();
    return met;
  }

  private static Object numbered(int port) throws Exception {
    Properties properties = new Properties();
    properties.put("mail.imap.starttls.enable", "false");
    try (Store store = Session.getInstance(properties).getStore("imap")) {
      store.connect("127.0.0.1", port, "visits", "s3cret");
      try (Folder inbox = store.getFolder("INBOX")) {
        inbox.open(Folder.READ_ONLY);
        Message[] all = inbox.getMessages();
        FetchProfile numbers = new FetchProfile();
        numbers.add(UIDFolder.FetchProfileItem.UID);
        inbox.fetch(all, numbers);
        return all;
      }
    }
  }
}
