package org.ysthmos.adapters.mail;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** Letters, against a real SMTP server library, and against one that answers as it is told. */
class LetterTest {

  private static final String DOCUMENT =
      """
      system: post
      name: Post
      address: imap://127.0.0.1:%d
      send-address: smtp://127.0.0.1:%d
      sign-in: { basic: { user: visits, secret: word } }
      timeout: PT5S
      collections:
        letters:
          name: Letters
          send: { from: "Garden <garden@tidewrack.example>", keep-in: Sent }
      """;

  private final List<RemoteCall> calls = new ArrayList<>();
  private GreenMail server;
  private SystemGateway system;

  @BeforeEach
  void start() {
    server =
        new GreenMail(
            new ServerSetup[] {
              new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_IMAP),
              new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP)
            });
    server.start();
    server.setUser("visits@tidewrack.example", "visits", "s3cret");
    system = sendingAt(server.getSmtp().getPort());
  }

  private SystemGateway sendingAt(int port) {
    return SystemReader.read(DOCUMENT.formatted(server.getImap().getPort(), port))
        .open(new Surroundings(name -> Optional.of("s3cret"), () -> Instant.EPOCH));
  }

  @AfterEach
  void stop() {
    system.close();
    server.stop();
  }

  private static TaskGateway.Effect letter(
      SequencedMap<String, Value> fields, Optional<String> made) {
    return new TaskGateway.Effect(
        "letters", made.isEmpty() ? EffectKind.CREATE : EffectKind.CHANGE, "key-1", made, fields);
  }

  private static SequencedMap<String, Value> fields(String to) {
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    fields.put("to", new ListValue(ValueType.TEXT, List.of(new Text(to))));
    fields.put("subject", new Text("Your visit in March\r\nBcc: everyone@mail.example"));
    fields.put("text", new Text("Até já"));
    fields.put("in-reply-to", new Text("a@school.example"));
    return fields;
  }

  @Test
  void letterIsSentOnceWithAnIdThatComesOfItsKey() throws Exception {
    List<String> made = new ArrayList<>();
    var outcome =
        system.deliver(
            letter(fields("joao@school.example"), Optional.empty()), made::add, calls::add);
    assertThat(outcome).isInstanceOf(TaskGateway.Delivered.class);
    assertThat(made).containsExactly("key-1@tidewrack.example");
    MimeMessage got = server.getReceivedMessagesForDomain("joao@school.example")[0];
    assertThat(got.getMessageID()).isEqualTo("<key-1@tidewrack.example>");
    assertThat(got.getSubject()).isEqualTo("Your visit in March Bcc: everyone@mail.example");
    assertThat(got.getHeader("Bcc")).isNull();
    assertThat(got.getHeader("In-Reply-To")).containsExactly("<a@school.example>");
    assertThat(got.getHeader("Auto-Submitted")).containsExactly("auto-generated");
    assertThat(got.getContent().toString().strip()).isEqualTo("Até já");
    assertThat(((TaskGateway.Searched) system.findByKey("letters", "key-1", calls::add)).record())
        .contains("key-1@tidewrack.example");
    assertThat(((TaskGateway.Searched) system.findByKey("letters", "key-2", calls::add)).record())
        .isEmpty();
  }

  /** RFC 2047 section 5 (3): a name beside an address is written in encoded words. */
  @Test
  void namesAreEncodedAndControlCharactersLeftOut() throws Exception {
    SequencedMap<String, Value> fields = fields("João Só <joao@school.example>");
    fields.put("subject", new Text("Bell\u0007 rings"));
    assertThat(system.deliver(letter(fields, Optional.empty()), id -> {}, calls::add))
        .isInstanceOf(TaskGateway.Delivered.class);
    MimeMessage got = server.getReceivedMessagesForDomain("joao@school.example")[0];
    assertThat(got.getHeader("To")[0])
        .matches("\\p{ASCII}+")
        .startsWith("=?UTF-8?")
        .endsWith("<joao@school.example>");
    assertThat(got.getSubject()).isEqualTo("Bell rings");
  }

  @Test
  void letterThatIsSentCannotBeChangedAndItsIdIsNotSentAgain() {
    var again =
        system.deliver(letter(fields("a@b.example"), Optional.of("x")), id -> {}, calls::add);
    assertThat(((TaskGateway.Undelivered) again).failure().kind())
        .isEqualTo(FailureKind.NOT_ALLOWED);
    var effect =
        new TaskGateway.Effect(
            "letters", EffectKind.CREATE, "k", Optional.of("x"), fields("a@b.example"));
    assertThat(system.deliver(effect, id -> {}, calls::add))
        .isInstanceOf(TaskGateway.Delivered.class);
    assertThat(server.getReceivedMessages()).isEmpty();
  }

  @Test
  void addressThatIsNoneIsRefusedByName() {
    var outcome =
        system.deliver(letter(fields("nobody at all"), Optional.empty()), id -> {}, calls::add);
    var failure = ((TaskGateway.Undelivered) outcome).failure();
    assertThat(failure.kind()).isEqualTo(FailureKind.VALUE_REFUSED);
    assertThat(failure.field()).contains("to");
  }

  private Failure sentTo(FakeSmtp smtp) throws Exception {
    try (SystemGateway there = sendingAt(smtp.port())) {
      var outcome =
          there.deliver(letter(fields("a@b.example"), Optional.empty()), id -> {}, calls::add);
      return ((TaskGateway.Undelivered) outcome).failure();
    }
  }

  /** RFC 5321 section 4.2.1: 4yz passes by itself, 5yz does not. */
  @ParameterizedTest
  @CsvSource({
    "RCPT, 550 no such user, VALUE_REFUSED",
    "RCPT, 451 try later, UNREACHABLE",
    "MAIL, 552 too much, VALUE_REFUSED",
    "MAIL, 421 closing, UNREACHABLE",
    "., 554 refused, VALUE_REFUSED",
    "., 452 no room, UNREACHABLE",
  })
  void refusalHasTheKindOfItsReply(String at, String reply, FailureKind kind) throws Exception {
    try (FakeSmtp smtp = new FakeSmtp(at, reply)) {
      Failure failure = sentTo(smtp);
      assertThat(failure.kind()).as(failure.message()).isEqualTo(kind);
      assertThat(failure.message()).contains(reply.substring(0, 3));
    }
  }

  /** Whether it was taken nobody knows; its key is looked for before it is handed in again. */
  @Test
  void answerThatNeverComesAfterTheTextLeavesItUnknown() throws Exception {
    try (FakeSmtp smtp = new FakeSmtp(".", "")) {
      assertThat(sentTo(smtp).kind()).isEqualTo(FailureKind.ANSWER_UNKNOWN);
    }
  }

  @Test
  void serverThatCannotBeSpokenToWasHandedNothing() throws Exception {
    try (FakeSmtp smtp = new FakeSmtp("EHLO", "")) {
      assertThat(sentTo(smtp).kind()).isEqualTo(FailureKind.UNREACHABLE);
    }
    // A port that is bound refuses, and nobody else can come to listen on it meanwhile.
    try (Socket bound = new Socket();
        SystemGateway there = sendingAt(portOf(bound))) {
      var outcome =
          there.deliver(letter(fields("a@b.example"), Optional.empty()), id -> {}, calls::add);
      Failure failure = ((TaskGateway.Undelivered) outcome).failure();
      assertThat(failure.kind()).isEqualTo(FailureKind.UNREACHABLE);
      assertThat(failure.remedy().orElse("")).contains("server is up");
    }
  }

  private static int portOf(Socket socket) throws IOException {
    socket.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
    return socket.getLocalPort();
  }

  @Test
  void passwordThatIsWrongIsNamedAndNothingIsSent() throws Exception {
    try (FakeSmtp smtp = new FakeSmtp("AUTH", "535 no")) {
      assertThat(sentTo(smtp).kind()).isEqualTo(FailureKind.NOT_SIGNED_IN);
    }
    assertThat(calls.toString()).doesNotContain("s3cret");
  }

  @Test
  void letterIsSentThoughItsCopyCannotBeKeptAndTheCallsTellOfIt() {
    server.getImap().stopService();
    var outcome =
        system.deliver(letter(fields("a@b.example"), Optional.empty()), id -> {}, calls::add);
    assertThat(outcome).isInstanceOf(TaskGateway.Delivered.class);
    assertThat(server.getReceivedMessages()).hasSize(1);
    assertThat(calls).hasSize(2);
    assertThat(calls.getLast().problem()).isNotEmpty();
  }

  @Test
  void letterIsNotTakenBack() {
    var removal = system.remove("letters", "x", Optional.empty(), calls::add);
    assertThat(((TaskGateway.NotRemoved) removal).failure().kind())
        .isEqualTo(FailureKind.NOT_ALLOWED);
  }
}
