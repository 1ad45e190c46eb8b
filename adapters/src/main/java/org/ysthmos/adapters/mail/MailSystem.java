package org.ysthmos.adapters.mail;

import com.fasterxml.jackson.databind.JsonNode;
import jakarta.mail.FolderNotFoundException;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import org.ysthmos.adapters.mail.FolderCursor.Pass;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.decide.World.LookupAnswer;
import org.ysthmos.core.decide.World.Unanswered;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.RemoteCall.Purpose;
import org.ysthmos.core.gateway.Seen;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.load.RateLimiter;

/** A mail account: its folders are read, and letters are sent from it. */
final class MailSystem implements SystemGateway {

  /** How many changes are told at once. */
  private static final int PAGE = 50;

  /** How many folders are named to who named one that is not there. */
  private static final int MOST_NAMED = 30;

  private final SystemDescription system;
  private final MailAccount account;
  private final MailFailures failures;
  private final LetterPost post;
  private final InstantSource clock;
  private final RateLimiter limiter;

  MailSystem(SystemDescription system, MailAccount account, InstantSource clock) {
    this.system = system;
    this.account = account;
    this.failures = new MailFailures(system.name(), "imap".equals(system.address().getScheme()));
    this.post = new LetterPost(account, clock);
    this.clock = clock;
    this.limiter = new RateLimiter(system.limit());
  }

  /** Reads something in the opened account. */
  @FunctionalInterface
  private interface MailQuery<T> {
    T read(Mailbox box) throws MessagingException, IOException;
  }

  /** What reading came to. */
  private sealed interface Outcome<T> {
    record Read<T>(T found) implements Outcome<T> {}

    record Failed<T>(Failure failure) implements Outcome<T> {}
  }

  /** Takes room for one session with a server; what was not opened was not called. */
  private Optional<Failure> noRoom() {
    Duration wait = limiter.take(clock.instant());
    return wait.isZero()
        ? Optional.empty()
        : Optional.of(
            Failure.noRoom(system.name() + " leaves no room for another call just now", wait));
  }

  private <T> Outcome<T> read(Purpose purpose, String what, CallLog log, MailQuery<T> reading) {
    Optional<Failure> full = noRoom();
    if (full.isPresent()) {
      return new Outcome.Failed<>(full.get());
    }
    MailCalls call =
        MailCalls.begin(system.name(), clock, log, purpose, what + " " + account.readAddress());
    try (Mailbox box = new Mailbox(account)) {
      T found = reading.read(box);
      call.answered(0, "OK", "");
      return new Outcome.Read<>(found);
    } catch (MessagingException | IOException e) {
      Failure failure = failures.reading(e);
      call.failed(failure, "");
      return new Outcome.Failed<>(failure);
    }
  }

  @Override
  public LookupAnswer find(String collection, SequencedMap<String, String> keys, CallLog calls) {
    if (!(system.collection(collection) instanceof FolderCollection folders)
        || !keys.keySet().equals(Set.of("id"))) {
      return new Unanswered(
          Failure.of(
                  FailureKind.SHAPE_CHANGED,
                  system.name() + " cannot find records by " + String.join(", ", keys.keySet()))
              .withRemedy("Mails are found by id"));
    }
    return answer(
        read(
            Purpose.READ,
            "FETCH",
            calls,
            box -> box.find(folders.folders(), keys.sequencedValues().getFirst())));
  }

  @Override
  public LookupAnswer list(String collection, int most, CallLog calls) {
    return system.collection(collection) instanceof FolderCollection folders
        ? answer(read(Purpose.READ, "FETCH", calls, box -> box.newest(folders.folders(), most)))
        : new Unanswered(
            Failure.of(FailureKind.SHAPE_CHANGED, system.name() + " lists no letters"));
  }

  private static LookupAnswer answer(Outcome<List<JsonNode>> outcome) {
    return switch (outcome) {
      case Outcome.Read<List<JsonNode>>(var found) -> new Found(found);
      case Outcome.Failed<List<JsonNode>>(var failure) -> new Unanswered(failure);
    };
  }

  @Override
  public Changes changes(String collection, Cursor cursor, CallLog calls) {
    if (!(system.collection(collection) instanceof FolderCollection folders)) {
      return new NotRead(
          Failure.of(FailureKind.SHAPE_CHANGED, system.name() + " is not asked for letters"));
    }
    Pass from =
        cursor
            .page()
            .map(Pass::read)
            .or(() -> cursor.since().map(text -> Pass.read(text).at(0)))
            .orElse(Pass.BEGINNING);
    return switch (read(
        Purpose.POLL, "SEARCH", calls, box -> page(box, folders, from, cursor.seen()))) {
      case Outcome.Read<Page>(Page page) -> page;
      case Outcome.Failed<Page>(Failure failure) -> new NotRead(failure);
    };
  }

  private Page page(Mailbox box, FolderCollection collection, Pass from, Seen seen)
      throws MessagingException, IOException {
    List<Changed> changes = new ArrayList<>();
    Map<String, String> met = new LinkedHashMap<>();
    List<SetAside> aside = new ArrayList<>();
    List<Failure> troubles = new ArrayList<>();
    Pass pass = from;
    List<String> folders = collection.folders();
    while (pass.folder() < folders.size() && changes.size() + aside.size() < PAGE) {
      String folder = folders.get(pass.folder());
      try {
        Mailbox.Chunk chunk =
            box.changes(
                folder,
                Optional.ofNullable(pass.cursors().get(folder)),
                seen,
                PAGE - changes.size() - aside.size(),
                clock.instant());
        changes.addAll(chunk.changes());
        met.putAll(chunk.met());
        aside.addAll(chunk.aside());
        pass = pass.with(folder, chunk.cursor());
        if (!chunk.whole()) {
          break;
        }
      } catch (FolderNotFoundException gone) {
        // The other folders do not wait for this one.
        troubles.add(failures.noFolder(folder, box.folders(MOST_NAMED)));
        if (folders.size() == 1) {
          throw gone;
        }
      }
      pass = pass.at(pass.folder() + 1);
    }
    String cursor = pass.write();
    boolean through = pass.folder() >= folders.size();
    return new Page(
        changes,
        through ? Optional.empty() : Optional.of(cursor),
        through ? Optional.of(cursor) : Optional.empty(),
        met,
        aside,
        troubles);
  }

  @Override
  public Optional<Listening> listen(String collection, Runnable changed) {
    return system.collection(collection) instanceof FolderCollection folders
        ? Optional.of(new FolderWatch(account, system.name(), folders.folders(), changed))
        : Optional.empty();
  }

  @Override
  public Search findByKey(String collection, String idempotencyKey, CallLog calls) {
    if (!(system.collection(collection) instanceof LetterCollection letters)
        || letters.keptIn().isEmpty()) {
      return new Unsearchable();
    }
    String id = LetterPost.id(letters, idempotencyKey);
    String folder = letters.keptIn().get();
    return switch (read(
        Purpose.FIND_BY_KEY, "SEARCH", calls, box -> box.holds(folder, "Message-ID", id))) {
      case Outcome.Read<Boolean>(Boolean there) ->
          new Searched(there ? Optional.of(id) : Optional.empty());
      case Outcome.Failed<Boolean>(Failure failure)
          // Without the folder nothing was kept in it.
          when failure.kind() == FailureKind.NOT_FOUND ->
          new Searched(Optional.empty());
      case Outcome.Failed<Boolean>(Failure failure) -> new Unsearched(failure);
    };
  }

  @Override
  public TaskGateway.Outcome deliver(Effect effect, Progress progress, CallLog calls) {
    Optional<URI> server = account.sendAddress();
    if (!(system.collection(effect.collection()) instanceof LetterCollection letters)
        || server.isEmpty()) {
      return new Undelivered(
          Failure.of(FailureKind.NOT_ALLOWED, system.name() + " sends no letters from here")
              .withRemedy("Give the system's document a send-address"));
    }
    if (effect.record().isPresent()) {
      return effect.makes()
          ? new Delivered(effect.record().get(), Map.of(), List.of())
          : new Undelivered(
              Failure.of(FailureKind.NOT_ALLOWED, "A letter that is sent cannot be changed")
                  .withRemedy("Let “match” name what makes it another letter"));
    }
    return send(letters, server.get(), effect, progress, calls);
  }

  private TaskGateway.Outcome send(
      LetterCollection letters, URI server, Effect effect, Progress progress, CallLog calls) {
    Optional<Failure> full = noRoom();
    if (full.isPresent()) {
      return new Undelivered(full.get());
    }
    String id = LetterPost.id(letters, effect.idempotencyKey());
    MailCalls call = MailCalls.begin(system.name(), clock, calls, Purpose.SEND, "SEND " + server);
    String written = "";
    try {
      MimeMessage letter = post.write(letters, effect);
      written = MailText.of(letter);
      post.send(server, letter);
      call.answered(250, "Handed in as <" + id + ">", written);
      progress.made(id);
      keep(letters, letter, calls);
      return new Delivered(id, Map.of(), List.of(id));
    } catch (LetterPost.Unwritable e) {
      return new Undelivered(e.failure());
    } catch (LetterPost.Unopened e) {
      Failure failure = failures.reading(e.why());
      call.failed(failure, written);
      return new Undelivered(failure);
    } catch (MessagingException | IOException e) {
      Failure failure = failures.sending(e);
      call.failed(failure, written);
      return new Undelivered(failure);
    }
  }

  /** A copy that cannot be kept does not undo that the letter is sent; the trace tells of it. */
  private void keep(LetterCollection letters, MimeMessage letter, CallLog calls) {
    letters
        .keptIn()
        .ifPresent(
            folder -> {
              Outcome<Boolean> unused =
                  read(
                      Purpose.KEEP_COPY,
                      "APPEND",
                      calls,
                      box -> {
                        box.keep(folder, letter);
                        return true;
                      });
            });
  }

  @Override
  public Removal remove(String collection, String record, Optional<String> tag, CallLog calls) {
    return new NotRemoved(
        Failure.of(FailureKind.NOT_ALLOWED, "A letter that is sent cannot be taken back"));
  }

  @Override
  public RateLimiter limiter() {
    return limiter;
  }

  @Override
  public void close() {
    // Connections last for one call each.
  }
}
