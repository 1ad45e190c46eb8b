package org.ysthmos.adapters.mail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.icegreen.greenmail.user.GreenMailUser;
import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.Flags;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Date;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.Random;
import java.util.SequencedMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.adapters.MetItems;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.Listening;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.SystemGateway;

/** Against a real IMAP and SMTP server library. */
class MailSystemTest {

  private static final Instant NOON = Instant.parse("2026-11-24T12:00:00Z");
  private static final String DOCUMENT =
      """
      system: post
      name: Post
      address: imap://127.0.0.1:%d
      send-address: smtp://127.0.0.1:%d
      sign-in: { basic: { user: visits, secret: word } }
      timeout: PT5S
      collections:
        mails:
          name: Mails
          folders: [INBOX, Visits]
        letters:
          name: Letters
          send: { from: "Garden <garden@tidewrack.example>", keep-in: Sent }
      """;

  private final List<RemoteCall> calls = new ArrayList<>();
  private GreenMail server;
  private GreenMailUser user;
  private SystemGateway system;
  private String password = "s3cret";

  @BeforeEach
  void start() throws Exception {
    server =
        new GreenMail(
            new ServerSetup[] {
              new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_IMAP),
              new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP)
            });
    server.start();
    user = server.setUser("visits@tidewrack.example", "visits", "s3cret");
    folder("Visits");
    system =
        SystemReader.read(
                DOCUMENT.formatted(server.getImap().getPort(), server.getSmtp().getPort()))
            .open(new Surroundings(name -> Optional.of(password), () -> NOON));
  }

  @AfterEach
  void stop() {
    system.close();
    server.stop();
  }

  private void folder(String name) throws Exception {
    var store = server.getImap().createStore();
    store.connect("visits", "s3cret");
    store.getFolder(name).create(jakarta.mail.Folder.HOLDS_MESSAGES);
    store.close();
  }

  private static String mail(String id, String subject) {
    return """
        Message-ID: <%s@school.example>
        From: =?UTF-8?Q?Jo=C3=A3o?= <Joao@School.Example>
        To: visits@tidewrack.example
        Subject: %s
        Date: Tue, 24 Nov 2026 09:30:00 +0000
        Content-Type: text/plain; charset=UTF-8

        We are thirty.
        """
        .formatted(id, subject)
        .replace("\n", "\r\n");
  }

  private void put(String folder, String source, Instant arrived, boolean flagged)
      throws Exception {
    MimeMessage message =
        new MimeMessage(
            Session.getInstance(new Properties()),
            new ByteArrayInputStream(source.getBytes(StandardCharsets.UTF_8)));
    Flags flags = new Flags();
    if (flagged) {
      flags.add(Flags.Flag.FLAGGED);
    }
    server
        .getManagers()
        .getImapHostManager()
        .getFolder(user, folder)
        .appendMessage(message, flags, Date.from(arrived));
  }

  private void flag(String folder, int number, boolean on) throws Exception {
    var store = server.getImap().createStore();
    store.connect("visits", "s3cret");
    var opened = store.getFolder(folder);
    opened.open(jakarta.mail.Folder.READ_WRITE);
    opened.getMessage(number).setFlag(Flags.Flag.FLAGGED, on);
    opened.close();
    store.close();
  }

  private static List<String> told(List<Changed> changes) {
    return changes.stream()
        .map(one -> one.id().replace("@school.example", "") + " " + one.version())
        .toList();
  }

  @Test
  void mailThatArrivesIsToldOnceWithAllThatIsInIt() throws Exception {
    MetItems met = new MetItems(system, "mails");
    assertThat(met.pass()).isEmpty();
    put("Visits", mail("a", "=?ISO-8859-1?Q?Visita_ao_jardim_em_Mar=E7o?="), NOON, false);
    List<Changed> changes = met.pass();
    assertThat(told(changes)).containsExactly("a arrived in Visits");
    Changed change = changes.getFirst();
    assertThat(change.kind()).contains("arrived");
    assertThat(change.changed()).contains(NOON);
    JsonNode record = change.record();
    assertThat(record.path("subject").asText()).isEqualTo("Visita ao jardim em Março");
    assertThat(record.path("from").asText()).isEqualTo("Joao@school.example");
    assertThat(record.path("fromName").asText()).isEqualTo("João");
    assertThat(record.path("sentAt").asText()).isEqualTo("2026-11-24T09:30:00Z");
    assertThat(record.path("text").asText()).isEqualTo("We are thirty.");
    assertThat(record.path("folder").asText()).isEqualTo("Visits");
    assertThat(record.path("link").asText()).isEqualTo("mid:a@school.example");
    assertThat(record.path("to").path(0).asText()).isEqualTo("visits@tidewrack.example");
    assertThat(met.pass()).isEmpty();
  }

  @Test
  void flagIsToldOnceAndWhatWasFlaggedBeforeIsNot() throws Exception {
    put("INBOX", mail("old", "Old"), NOON.minus(Duration.ofDays(40)), true);
    put("INBOX", mail("new", "New"), NOON.minus(Duration.ofDays(30)), false);
    MetItems met = new MetItems(system, "mails");
    assertThat(met.pass()).isEmpty();
    flag("INBOX", 2, true);
    List<Changed> changes = met.pass();
    assertThat(told(changes)).containsExactly("new flagged");
    assertThat(changes.getFirst().kind()).contains("flagged");
    assertThat(changes.getFirst().record().path("flagged").asBoolean()).isTrue();
    assertThat(met.pass()).isEmpty();
    flag("INBOX", 2, false);
    assertThat(met.pass()).isEmpty();
  }

  @Test
  void mailThatIsMovedArrivesInItsNewFolder() throws Exception {
    MetItems met = new MetItems(system, "mails");
    met.pass();
    put("INBOX", mail("a", "A"), NOON, false);
    put("Visits", mail("a", "A"), NOON, false);
    assertThat(told(met.pass())).containsExactly("a arrived in INBOX", "a arrived in Visits");
  }

  @Test
  void folderWhoseUidsMeanOtherMailsIsReadAnewAndGivesTheSameChanges() throws Exception {
    MetItems met = new MetItems(system, "mails");
    met.pass();
    put("Visits", mail("a", "A"), NOON, true);
    put("Visits", mail("b", "B"), NOON, false);
    List<String> before = told(met.pass());
    var folders = server.getManagers().getImapHostManager();
    long validity = folders.getFolder(user, "Visits").getUidValidity();
    // It counts in seconds there.
    while (folders.getFolder(user, "Visits").getUidValidity() == validity) {
      folders.deleteMailbox(user, "Visits");
      folders.createMailbox(user, "Visits");
    }
    put("Visits", mail("b", "B"), NOON, false);
    put("Visits", mail("c", "C"), NOON, false);
    put("Visits", mail("a", "A"), NOON, true);
    assertThat(told(met.pass()))
        .containsExactlyInAnyOrder(
            "a arrived in Visits", "b arrived in Visits", "c arrived in Visits", "a flagged");
    assertThat(before).containsExactly("a arrived in Visits", "b arrived in Visits", "a flagged");
    assertThat(met.pass()).isEmpty();
  }

  /** The law: whatever arrives, is flagged or taken away while it is read, nothing is missed. */
  @ParameterizedTest
  @ValueSource(longs = {3, 20261125})
  void nothingIsMissedHoweverItComesWhileItIsRead(long seed) throws Exception {
    Random random = new Random(seed);
    MetItems met = new MetItems(system, "mails");
    met.pass();
    List<String> expected = new ArrayList<>();
    List<String> found = new ArrayList<>();
    int number = 0;
    int inVisits = 0;
    for (int round = 0; round < 5; round++) {
      for (int i = random.nextInt(24); i > 0; i--) {
        boolean visits = random.nextBoolean();
        inVisits += visits ? 1 : 0;
        boolean flagged = random.nextInt(4) == 0;
        String id = "m" + number++;
        put(visits ? "Visits" : "INBOX", mail(id, "S"), NOON, flagged);
        expected.add(id + " arrived in " + (visits ? "Visits" : "INBOX"));
        if (flagged) {
          expected.add(id + " flagged");
        }
      }
      if (random.nextInt(5) == 0) {
        // A reader that is broken off reads the page again.
        found.addAll(told(met.look().records()));
      }
      found.addAll(told(met.pass()));
    }
    found.addAll(told(met.pass()));
    assertThat(found).as("seed %s, %s in Visits", seed, inVisits).containsAll(expected);
    assertThat(expected).containsAll(found);
  }

  @Test
  void mailIsFoundByItsIdAndTheNewestAreListed() throws Exception {
    put("INBOX", mail("a", "A"), NOON.minusSeconds(60), false);
    put("Visits", mail("b", "B"), NOON, false);
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("id", "b@school.example");
    Found found = (Found) system.find("mails", keys, calls::add);
    assertThat(found.records()).hasSize(1);
    assertThat(found.records().getFirst().path("subject").asText()).isEqualTo("B");
    Found newest = (Found) system.list("mails", 5, calls::add);
    assertThat(newest.records())
        .extracting(record -> record.path("subject").asText())
        .containsExactly("B", "A");
  }

  @Test
  void passwordThatIsWrongIsNamedWithItsRemedy() {
    password = "other";
    NotRead notRead = (NotRead) system.changes("mails", Cursor.BEGINNING, calls::add);
    assertThat(notRead.failure().kind()).isEqualTo(FailureKind.NOT_SIGNED_IN);
    assertThat(notRead.failure().remedy().orElse("")).contains("valid user and password");
    assertThat(calls.getLast().toString()).doesNotContain("other");
  }

  @Test
  void folderThatIsGoneIsNamed() throws Exception {
    server.getManagers().getImapHostManager().deleteMailbox(user, "Visits");
    Page page = (Page) system.changes("mails", Cursor.BEGINNING, calls::add);
    assertThat(page.troubles().getFirst().kind()).isEqualTo(FailureKind.NOT_FOUND);
    assertThat(page.troubles().getFirst().message())
        .startsWith("Post has no folder “Visits”; there are INBOX");
  }

  @Test
  void serverThatIsDownIsUnreachable() {
    server.stop();
    NotRead notRead = (NotRead) system.changes("mails", Cursor.BEGINNING, calls::add);
    assertThat(notRead.failure().kind()).isEqualTo(FailureKind.UNREACHABLE);
  }

  @Test
  void mailIsToldOfAtOnceByIdle() throws Exception {
    CountDownLatch listens = new CountDownLatch(2);
    CountDownLatch told = new CountDownLatch(3);
    try (Listening listening =
        system
            .listen(
                "mails",
                () -> {
                  listens.countDown();
                  told.countDown();
                })
            .orElseThrow()) {
      assertThat(listens.await(20, TimeUnit.SECONDS)).isTrue();
      // The word comes once a connection idles; until then a mail is put again.
      for (int i = 0; told.getCount() > 0 && i < 100; i++) {
        put("Visits", mail("idle" + i, "I"), NOON, false);
        assertThat(told.await(200, TimeUnit.MILLISECONDS) || i < 99).isTrue();
      }
      assertThat(told.getCount()).isZero();
      assertThat(listening).isNotNull();
    }
  }

  private static String wrong(String right, String wrong) {
    return DOCUMENT.formatted(143, 25).replace(right, wrong);
  }

  @Test
  void documentThatCannotBeUsedIsRefusedAtItsPlace() {
    assertThatThrownBy(() -> SystemReader.read(wrong("[INBOX, Visits]", "[]")))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining("name at least one folder");
    assertThatThrownBy(() -> SystemReader.read(wrong("garden@tidewrack.example", "garden")))
        .isInstanceOf(DocumentException.class);
    assertThatThrownBy(() -> SystemReader.read(wrong("smtp:", "ftp:")))
        .hasMessageContaining("smtps://host");
  }
}
