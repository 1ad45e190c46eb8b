package org.ysthmos.adapters.mail;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.RemoteCall.Purpose;

/** Takes down what was asked of a mail server. Commands and passwords are not kept. */
final class MailCalls {

  private final String system;
  private final CallLog log;
  private final Purpose purpose;
  private final String asked;
  private final Instant start;
  private final long began = System.nanoTime();

  private MailCalls(String system, Instant start, CallLog log, Purpose purpose, String asked) {
    this.purpose = purpose;
    this.system = system;
    this.log = log;
    this.asked = asked;
    this.start = start;
  }

  /**
   * @param purpose what it is made for
   * @param asked a word for what is asked and where, such as {@code SEARCH imap://host/INBOX}
   */
  static MailCalls begin(
      String system, InstantSource clock, CallLog log, Purpose purpose, String asked) {
    return new MailCalls(system, clock.instant(), log, purpose, asked);
  }

  void answered(int status, String answer, String sent) {
    log.called(call(status, List.of(answer), sent, ""));
  }

  void failed(Failure failure, String sent) {
    log.called(call(0, List.of(), sent, failure.message()));
  }

  private RemoteCall call(int status, List<String> response, String sent, String problem) {
    return new RemoteCall(
        system,
        purpose,
        start,
        Duration.ofNanos(System.nanoTime() - began),
        List.of(asked),
        sent,
        status,
        response,
        "",
        problem);
  }
}
