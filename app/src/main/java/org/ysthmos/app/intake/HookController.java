package org.ysthmos.app.intake;

import jakarta.servlet.http.HttpServletRequest;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.SocketTimeoutException;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.hook.HookSender;
import org.ysthmos.adapters.hook.PushReader;
import org.ysthmos.adapters.system.ManyPlaces;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.event.Event;

/** Where outside systems send their webhooks. */
@RestController
class HookController {

  private static final Duration UNTIL_THERE_IS_ROOM = Duration.ofMinutes(1);
  private static final Duration UNTIL_OTHERS_ARE_READ = Duration.ofSeconds(2);
  private static final int LONGEST_WAIT_SECONDS = 10;

  /** How long a sender may take for a body. */
  private static final Duration LONGEST_SENDING = Duration.ofSeconds(10);

  /** How many bodies are read at a time; far fewer than there are threads for requests. */
  private static final int MOST_READ_AT_ONCE = 96;

  private static final int LONGEST_ID = 256;

  /**
   * The acknowledgement.
   *
   * @param event the id under which the event is kept
   * @param bridges how many bridges it concerns
   * @param known whether it had come before and changed nothing
   */
  record Acknowledged(String event, int bridges, boolean known) {}

  private final Systems systems;
  private final SecretVault secrets;
  private final IntakeWriter writer;
  private final AppClock clock;
  private final int largestBody;
  private final DiskRoom room;
  private final Semaphore reading = new Semaphore(MOST_READ_AT_ONCE);

  HookController(
      Systems systems,
      SecretVault secrets,
      IntakeWriter writer,
      AppClock clock,
      DiskRoom room,
      Settings settings) {
    this.systems = systems;
    this.secrets = secrets;
    this.writer = writer;
    this.clock = clock;
    this.room = room;
    this.largestBody = settings.intake().largestBody();
  }

  @PostMapping("/hooks/{system}/{collection}")
  ResponseEntity<Acknowledged> take(
      @PathVariable String system, @PathVariable String collection, HttpServletRequest request)
      throws IOException, InterruptedException {
    return take(system, collection, "", request);
  }

  /** For senders that can keep a secret nowhere but in the address. */
  @PostMapping("/hooks/{system}/{collection}/{token}")
  ResponseEntity<Acknowledged> take(
      @PathVariable String system,
      @PathVariable String collection,
      @PathVariable String token,
      HttpServletRequest request)
      throws IOException, InterruptedException {
    Push push = push(system, collection);
    if (!room.isEnough()) {
      throw ApiProblem.later(
          "There is no room",
          "Nothing was kept: the disk here is nearly full. Send it again later.",
          UNTIL_THERE_IS_ROOM);
    }
    byte[] body = admitted(request);
    Instant now = clock.instant();
    var delivery = new HookSender.Delivery(name -> header(request, name), token, body);
    String id = verified(push, delivery, now);
    Event event = event(push, system, collection, id, body, now);
    return acknowledge(
        new EventMapper.EventRow(
            0,
            system,
            event.id(),
            event.collection(),
            event.kind(),
            event.record(),
            event.time(),
            now,
            EventMapper.Origin.TOLD,
            body));
  }

  private Push push(String system, String collection) {
    return systems
        .collection(system, collection)
        .or(
            () ->
                systems
                    .find(system)
                    .flatMap(
                        found -> Optional.ofNullable(found.description().many().get(collection)))
                    .map(ManyPlaces::any))
        .flatMap(SystemCollection::push)
        .orElseThrow(
            () ->
                new ApiProblem(
                    HttpStatus.NOT_FOUND,
                    "No webhooks are taken here",
                    "There is no collection "
                        + system
                        + "/"
                        + collection
                        + " that takes webhooks. Check the address given to the sender."));
  }

  /** Reads the body, unless so many are being read that the rest of the API would be kept out. */
  private byte[] admitted(HttpServletRequest request) throws IOException {
    if (!reading.tryAcquire()) {
      throw ApiProblem.later(
          "Too many at once",
          "Nothing was kept: too many webhooks are being received just now. Send it again later.",
          UNTIL_OTHERS_ARE_READ);
    }
    try {
      return body(request);
    } finally {
      reading.release();
    }
  }

  private byte[] body(HttpServletRequest request) throws IOException {
    if (request.getContentLengthLong() > largestBody) {
      throw tooLarge();
    }
    ByteArrayOutputStream body = new ByteArrayOutputStream();
    byte[] piece = new byte[8192];
    long until = System.nanoTime() + LONGEST_SENDING.toNanos();
    try (InputStream in = request.getInputStream()) {
      for (int read = in.read(piece); read >= 0; read = in.read(piece)) {
        body.write(piece, 0, read);
        if (body.size() > largestBody) {
          throw tooLarge();
        }
        if (System.nanoTime() > until) {
          throw tooSlow();
        }
      }
    } catch (SocketTimeoutException e) {
      throw tooSlow();
    }
    return body.toByteArray();
  }

  private static ApiProblem tooSlow() {
    return new ApiProblem(
        HttpStatus.REQUEST_TIMEOUT,
        "The body comes too slowly",
        "Nothing was kept: a webhook must be sent within %d seconds."
            .formatted(LONGEST_SENDING.toSeconds()));
  }

  private ApiProblem tooLarge() {
    return new ApiProblem(
        HttpStatus.PAYLOAD_TOO_LARGE,
        "The body is too large",
        "A webhook may have at most " + largestBody + " bytes. Send ids and let details be read.");
  }

  private String verified(Push push, HookSender.Delivery delivery, Instant now) {
    String name = push.verify().secret();
    String secret =
        secrets
            .find(name)
            .orElseThrow(
                () ->
                    new ApiProblem(
                        HttpStatus.SERVICE_UNAVAILABLE,
                        "The webhook cannot be verified",
                        "The secret “" + name + "” has not been set yet."));
    Optional<String> refused = HookSender.refuse(push.verify(), secret, delivery, now);
    if (refused.isPresent()) {
      throw new ApiProblem(
          HttpStatus.UNAUTHORIZED, "The webhook is not verified", sentence(refused.get()));
    }
    try {
      String id = HookSender.eventId(push.event(), delivery);
      if (id.length() > LONGEST_ID) {
        throw unreadable("the id of the event may have at most " + LONGEST_ID + " characters");
      }
      return id;
    } catch (PushReader.Unreadable e) {
      throw unreadable(String.valueOf(e.getMessage()));
    }
  }

  private static ApiProblem unreadable(String why) {
    return new ApiProblem(HttpStatus.BAD_REQUEST, "The webhook cannot be read", sentence(why));
  }

  private static String sentence(String why) {
    return "Nothing was kept: " + why + ".";
  }

  private static Event event(
      Push push, String system, String collection, String id, byte[] body, Instant now) {
    try {
      Event event = PushReader.read(push, system, collection, id, body, now);
      limit("the id of the place", event.collection(), EventMapper.EventRow.LONGEST_COLLECTION);
      limit("the id of the record", event.record(), EventMapper.EventRow.LONGEST_RECORD_ID);
      limit("the kind of the event", event.kind(), EventMapper.EventRow.LONGEST_KIND);
      return event;
    } catch (PushReader.Unreadable e) {
      throw unreadable(String.valueOf(e.getMessage()));
    }
  }

  private static void limit(String what, String text, int longest) {
    if (text.length() > longest) {
      throw unreadable(
          "%s may have at most %d characters, found %d".formatted(what, longest, text.length()));
    }
  }

  private ResponseEntity<Acknowledged> acknowledge(EventMapper.EventRow event)
      throws InterruptedException {
    try {
      IntakeWriter.Kept kept = writer.keep(event).get(LONGEST_WAIT_SECONDS, TimeUnit.SECONDS);
      return ResponseEntity.accepted()
          .body(new Acknowledged(kept.eventId(), kept.bridges(), kept.known()));
    } catch (ExecutionException | TimeoutException e) {
      throw new ApiProblem(
          HttpStatus.SERVICE_UNAVAILABLE,
          "The event could not be kept",
          "Send it again later; the same webhook-id makes it the same event.",
          e);
    }
  }

  private static String header(HttpServletRequest request, String name) {
    return Optional.ofNullable(request.getHeader(name)).orElse("");
  }
}
