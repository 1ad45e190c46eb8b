package org.ysthmos.adapters.mail;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.mail.Flags;
import jakarta.mail.Folder;
import jakarta.mail.Message;
import jakarta.mail.Session;
import jakarta.mail.Store;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.adapters.MetItems;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.SystemGateway;

/** Against Dovecot, an IMAP server that we did not write. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class DovecotTest {

  private static final String DOCUMENT =
      """
      system: post
      name: Post
      address: imap://127.0.0.1:%d
      sign-in: { basic: { user: %s, secret: word } }
      timeout: PT20S
      collections:
        mails: { name: Mails, folders: [%s] }
      """;

  private Dovecot server;
  private int port;
  private int users;
  private String user = "";

  @BeforeAll
  void start(@TempDir Path shared) throws Exception {
    server = Dovecot.start(shared, "ssl = no");
    port = server.port();
  }

  @AfterAll
  void stop() throws Exception {
    if (server != null) {
      server.close();
    }
  }

  /** Each test has a mailbox of its own. */
  @BeforeEach
  void mailbox() throws Exception {
    user = "user" + users++;
    server.mailbox(user);
  }

  private Path box(String name) throws Exception {
    return server.box(user, name);
  }

  private void put(String box, String name, byte[] source) throws Exception {
    server.put(user, box, name, source);
  }

  private void put(String name, String source) throws Exception {
    server.put(user, "INBOX", name, source);
  }

  private SystemGateway open(String... folders) {
    return SystemReader.read(DOCUMENT.formatted(port, user, String.join(", ", folders)))
        .open(new Surroundings(name -> Optional.of("s3cret"), Instant::now));
  }

  private static final String GOOD =
      "Message-ID: <%s@corpus.example>\nFrom: a@b.example\nSubject: Good\n\nFine\n";

  /** The law: whatever comes in, each mail becomes a change or is set aside, and all are told. */
  @Test
  void noMailHoldsOthersBack() throws Exception {
    Random random = new Random(20261126);
    MetItems met = new MetItems(open("INBOX"), "mails");
    met.pass();
    int count = 8 * BadMails.kinds();
    for (int i = 0; i < count; i++) {
      put("INBOX", "%06d.bad".formatted(i), BadMails.source(i, random));
    }
    put("999999.good", GOOD.formatted("last"));
    List<Changed> changes = met.pass();
    assertThat(changes).extracting(Changed::id).contains("last@corpus.example");
    List<String> told = new ArrayList<>(changes.stream().map(Changed::id).toList());
    met.aside.forEach(aside -> told.add(aside.id()));
    // Mails without any header are alike and have no id; each other one is told by its own.
    assertThat(told).hasSize(count + 1);
    for (int i = 0; i < count; i++) {
      if (!BadMails.name(i).equals("no headers")) {
        assertThat(told).as(BadMails.name(i)).contains("bad-%d@corpus.example".formatted(i));
      }
    }
    for (int i = 0; i < BadMails.kinds(); i++) {
      String said = BadMails.said(i);
      String id = "bad-%d@corpus.example".formatted(i);
      assertThat(changes)
          .filteredOn(change -> change.id().equals(id))
          .allSatisfy(change -> assertThat(change.record().path("unread").asText()).contains(said));
    }
    assertThat(changes)
        .allSatisfy(
            change -> assertThat(change.record().toString()).doesNotContainPattern("\\\\u00[01]"));
    assertThat(met.pass()).isEmpty();
  }

  /** Dovecot says {@code MISSING_DOMAIN} for it where it is asked for an envelope. */
  @Test
  void senderWithoutADomainIsReadWhenItArrivesIsFlaggedAndIsListed() throws Exception {
    SystemGateway system = open("INBOX");
    MetItems met = new MetItems(system, "mails");
    met.pass();
    put("1.cron", "From: root\nSubject: cron\nMessage-ID: <c@host>\n\nDone\n");
    assertThat(met.pass())
        .singleElement()
        .satisfies(change -> assertThat(change.record().path("from").asText()).isEqualTo("root"));
    flag(1);
    assertThat(met.pass())
        .singleElement()
        .satisfies(change -> assertThat(change.kind()).contains("flagged"));
    assertThat(((Found) system.list("mails", 5, call -> {})).records()).hasSize(1);
  }

  private void flag(int number) throws Exception {
    Store store = Session.getInstance(new Properties()).getStore("imap");
    store.connect("127.0.0.1", port, user, "s3cret");
    Folder inbox = store.getFolder("INBOX");
    inbox.open(Folder.READ_WRITE);
    Message mail = inbox.getMessage(number);
    mail.setFlag(Flags.Flag.FLAGGED, true);
    inbox.close();
    store.close();
  }

  @Test
  void mailWithoutAnIdHasNoLinkAndIsKnownByWhatItIs() throws Exception {
    MetItems met = new MetItems(open("INBOX"), "mails");
    met.pass();
    put("1.x", "From: a@b.example\nSubject: None\n\nx\n");
    assertThat(met.pass())
        .singleElement()
        .satisfies(
            change -> {
              assertThat(change.id()).startsWith("no-id-");
              assertThat(change.record().has("link")).isFalse();
            });
  }

  @Test
  void folderThatIsNotThereHoldsNoOtherBackAndIsNamedWithThoseThatAre() throws Exception {
    box("Visits");
    MetItems met = new MetItems(open("Nowhere", "Visits"), "mails");
    met.pass();
    put(
        "Visits",
        "1.x",
        GOOD.formatted("v").replace("\n", "\r\n").getBytes(StandardCharsets.UTF_8));
    Page page = met.look();
    assertThat(page.records()).extracting(Changed::id).containsExactly("v@corpus.example");
    assertThat(page.troubles().getFirst().message())
        .isEqualTo("Post has no folder “Nowhere”; there are INBOX, Visits");
    NotRead none = (NotRead) open("Nowhere").changes("mails", Cursor.BEGINNING, call -> {});
    assertThat(none.failure().kind()).isEqualTo(FailureKind.NOT_FOUND);
  }

  /** A cursor with all flags in it was outgrown; each flagged mail is an item of its own now. */
  @Test
  void cursorDoesNotGrowWithWhatItWatches() throws Exception {
    MetItems met = new MetItems(open("INBOX"), "mails");
    met.pass();
    for (int i = 0; i < 300; i++) {
      put("%04d.m:2,".formatted(i), GOOD.formatted("m" + i));
    }
    assertThat(met.pass()).hasSize(300);
    for (int i = 1; i <= 300; i += 2) {
      flag(i);
    }
    assertThat(met.pass()).hasSize(150);
    assertThat(met.items()).hasSize(150);
    assertThat(met.cursor().since().orElseThrow()).hasSizeLessThan(200);
    try (Stream<Path> files = Files.list(box("INBOX").resolve("cur"))) {
      assertThat(files).hasSize(300);
    }
  }
}
