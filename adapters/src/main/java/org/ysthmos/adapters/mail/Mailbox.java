package org.ysthmos.adapters.mail;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import jakarta.mail.FetchProfile;
import jakarta.mail.Flags;
import jakarta.mail.Folder;
import jakarta.mail.FolderClosedException;
import jakarta.mail.Message;
import jakarta.mail.MessageRemovedException;
import jakarta.mail.MessagingException;
import jakarta.mail.Store;
import jakarta.mail.UIDFolder;
import jakarta.mail.search.FlagTerm;
import jakarta.mail.search.HeaderTerm;
import jakarta.mail.search.MessageIDTerm;
import jakarta.mail.search.ReceivedDateTerm;
import jakarta.mail.search.SearchTerm;
import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.Date;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.eclipse.angus.mail.imap.IMAPFolder;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.SetAside;
import org.ysthmos.core.gateway.Seen;

/** The folders of an account while they are read. */
final class Mailbox implements AutoCloseable {

  /**
   * How far back a folder is read when it is read first, so that what comes between the beginning
   * and the first look is not missed. IMAP searches by day alone.
   */
  private static final Duration FIRST_LOOK = Duration.ofDays(2);

  /** What is known of a mail besides the mail itself. */
  private static final FetchProfile.Item[] AROUND = {
    FetchProfile.Item.FLAGS, FetchProfile.Item.SIZE, IMAPFolder.FetchProfileItem.INTERNALDATE,
  };

  /** A larger mail is read part by part, and only the parts that are kept. In bytes. */
  private static final int LARGEST_AT_ONCE = 1 << 20;

  private final URI server;
  private final Store store;

  Mailbox(MailAccount account) throws MessagingException {
    this.server = account.readAddress();
    this.store = account.read();
  }

  /**
   * Some changes of a folder.
   *
   * @param cursor how far it is read with them
   * @param met the mails whose state is known now; see {@link Flagged}
   * @param aside the mails that could not be read
   * @param whole whether it has no more
   */
  record Chunk(
      List<Changed> changes,
      FolderCursor cursor,
      Map<String, String> met,
      List<SetAside> aside,
      boolean whole) {}

  /**
   * Reads what changed in a folder: first what is to be read again, then what arrived, then what
   * was flagged, each in the order of the UIDs.
   *
   * @param known how far it was read before; empty if it is read first
   * @param seen the mails that are known as flagged or could not be read
   * @param most how many changes are wanted at the most, at least 1
   */
  Chunk changes(String name, Optional<FolderCursor> known, Seen seen, int most, Instant now)
      throws MessagingException, IOException {
    try (IMAPFolder folder = open(name)) {
      long validity = folder.getUIDValidity();
      Flagged flags = new Flagged(name, validity, seen);
      FolderCursor cursor = begin(folder, known, flags, now);
      FolderReading reading = new FolderReading(folder, name, most);
      for (long uid : flags.again()) {
        reading.read(uid).ifPresent(mail -> reading.add(arrived(mail, name)));
        flags.readAgain(uid);
      }
      long next = cursor.next();
      NavigableSet<Long> arrived =
          uids(folder, folder.getMessagesByUID(next, UIDFolder.LASTUID)).tailSet(next, true);
      reading.prepare(arrived);
      for (long uid : arrived) {
        if (reading.isFull()) {
          return reading.chunk(cursor.at(next), flags, false);
        }
        reading.read(uid).ifPresent(mail -> reading.add(arrived(mail, name)));
        next = uid + 1;
      }
      NavigableSet<Long> flaggedNow = flagged(folder);
      flags.keepOnly(flaggedNow);
      NavigableSet<Long> fresh = flags.without(flaggedNow);
      reading.prepare(fresh);
      for (long uid : fresh) {
        if (reading.isFull()) {
          return reading.chunk(cursor.at(next), flags, false);
        }
        boolean anew = cursor.anew();
        reading.read(uid).ifPresent(mail -> reading.add(flagged(mail, anew)));
        flags.add(uid);
      }
      return reading.chunk(new FolderCursor(validity, next, false, new TreeSet<>()), flags, true);
    }
  }

  /** What is read of one folder, as far as there is room. */
  private final class FolderReading {
    private final IMAPFolder folder;
    private final String name;
    private final int most;
    private final List<Changed> changes = new ArrayList<>();
    private final List<SetAside> aside = new ArrayList<>();

    FolderReading(IMAPFolder folder, String name, int most) {
      this.folder = folder;
      this.name = name;
      this.most = most;
    }

    boolean isFull() {
      return changes.size() + aside.size() >= most;
    }

    void add(Changed change) {
      changes.add(change);
    }

    void prepare(Collection<Long> uids) throws MessagingException {
      Mailbox.prepare(folder, uids, most);
    }

    /** One that cannot be read is set aside, as long as it is the mail and not the connection. */
    Optional<ObjectNode> read(long uid) throws MessagingException, IOException {
      try {
        return Mailbox.this.read(folder, name, uid);
      } catch (MessagingException | IOException | RuntimeException e) {
        if (!folder.isOpen() || !store.isConnected()) {
          throw e;
        }
        aside.add(MailAside.of(folder, name, uid, e));
        return Optional.empty();
      }
    }

    Chunk chunk(FolderCursor cursor, Flagged flags, boolean whole) {
      return new Chunk(changes, cursor, flags.changed(), aside, whole);
    }
  }

  /**
   * Under another UIDVALIDITY all is read anew; who was told before is known by its id. What was
   * flagged before the folder is first read is not told.
   */
  private FolderCursor begin(
      IMAPFolder folder, Optional<FolderCursor> known, Flagged flags, Instant now)
      throws MessagingException {
    long validity = folder.getUIDValidity();
    if (known.isPresent() && known.get().validity() == validity) {
      known.get().flagged().forEach(flags::add);
      return known.get();
    }
    if (known.isPresent()) {
      return new FolderCursor(validity, 1, true, new TreeSet<>());
    }
    Date from = Date.from(now.minus(FIRST_LOOK));
    NavigableSet<Long> recent =
        uids(folder, folder.search(new ReceivedDateTerm(ReceivedDateTerm.GE, from)));
    NavigableSet<Long> flagged = flagged(folder);
    flagged.removeAll(recent);
    flagged.forEach(flags::add);
    long next = recent.isEmpty() ? afterLast(folder) : recent.first();
    return new FolderCursor(validity, next, true, new TreeSet<>());
  }

  private static long afterLast(IMAPFolder folder) throws MessagingException {
    int count = folder.getMessageCount();
    return count == 0 ? 1 : folder.getUID(folder.getMessage(count)) + 1;
  }

  private static NavigableSet<Long> flagged(IMAPFolder folder) throws MessagingException {
    return uids(folder, folder.search(new FlagTerm(new Flags(Flags.Flag.FLAGGED), true)));
  }

  private static NavigableSet<Long> uids(IMAPFolder folder, Message[] found)
      throws MessagingException {
    FetchProfile wanted = new FetchProfile();
    wanted.add(UIDFolder.FetchProfileItem.UID);
    folder.fetch(found, wanted);
    NavigableSet<Long> uids = new TreeSet<>();
    for (Message message : found) {
      if (!message.isExpunged()) {
        uids.add(folder.getUID(message));
      }
    }
    return uids;
  }

  /** Empty if it was taken away meanwhile. */
  private Optional<ObjectNode> read(IMAPFolder folder, String name, long uid)
      throws MessagingException, IOException {
    Message mail = folder.getMessageByUID(uid);
    if (mail == null) {
      return Optional.empty();
    }
    try {
      if (mail.getSize() <= LARGEST_AT_ONCE) {
        fetch(folder, new Message[] {mail}, IMAPFolder.FetchProfileItem.MESSAGE);
      }
      ObjectNode record = MailRecord.of(mail, server, name, folder.getUIDValidity(), uid);
      if (!folder.isOpen()) {
        // What could not be read of it was lost with the connection.
        throw new FolderClosedException(folder);
      }
      return Optional.of(record);
    } catch (MessageRemovedException gone) {
      return Optional.empty();
    }
  }

  /** The mails of these that can be read. */
  private List<ObjectNode> readable(IMAPFolder folder, String name, Collection<Long> uids)
      throws MessagingException, IOException {
    FolderReading reading = new FolderReading(folder, name, Integer.MAX_VALUE);
    prepare(folder, uids, Integer.MAX_VALUE);
    List<ObjectNode> found = new ArrayList<>();
    for (long uid : uids) {
      reading.read(uid).ifPresent(found::add);
    }
    return found;
  }

  /** Asks once for what would be asked for mail by mail. */
  private static void prepare(IMAPFolder folder, Collection<Long> uids, int most)
      throws MessagingException {
    if (uids.isEmpty()) {
      return;
    }
    long[] first = uids.stream().mapToLong(Long::longValue).limit(most).toArray();
    fetch(folder, folder.getMessagesByUID(first), AROUND);
  }

  private static void fetch(IMAPFolder folder, Message[] mails, FetchProfile.Item... items)
      throws MessagingException {
    FetchProfile wanted = new FetchProfile();
    for (FetchProfile.Item item : items) {
      wanted.add(item);
    }
    folder.fetch(mails, wanted);
  }

  private static Changed arrived(ObjectNode mail, String folder) {
    return change(mail, FolderCollection.ARRIVED, "arrived in " + folder, arrivedAt(mail));
  }

  /**
   * @param anew whether nobody knows when it was flagged, so that it counts as when it arrived
   */
  private static Changed flagged(ObjectNode mail, boolean anew) {
    return change(
        mail, FolderCollection.FLAGGED, "flagged", anew ? arrivedAt(mail) : Optional.empty());
  }

  private static Optional<Instant> arrivedAt(ObjectNode mail) {
    return Optional.of(mail.path("arrivedAt").asText())
        .filter(at -> !at.isEmpty())
        .map(Instant::parse);
  }

  private static Changed change(
      ObjectNode mail, String kind, String version, Optional<Instant> changed) {
    return new Changed(
        mail.path("id").asText(), version, changed, arrivedAt(mail), Optional.of(kind), mail);
  }

  /** Finds mails by their id. */
  List<JsonNode> find(List<String> folders, String id) throws MessagingException, IOException {
    List<JsonNode> found = new ArrayList<>();
    for (String name : folders) {
      try (IMAPFolder folder = open(name)) {
        Message[] named = folder.search(new MessageIDTerm("<" + id + ">"));
        found.addAll(readable(folder, name, uids(folder, named)));
      }
    }
    return found;
  }

  /** Whether a mail with this header stands in a folder. */
  boolean holds(String name, String header, String value) throws MessagingException {
    SearchTerm term = new HeaderTerm(header, value);
    try (IMAPFolder folder = open(name)) {
      return folder.search(term).length > 0;
    }
  }

  /** The newest mails, as the server took them in. */
  List<JsonNode> newest(List<String> folders, int most) throws MessagingException, IOException {
    List<ObjectNode> found = new ArrayList<>();
    for (String name : folders) {
      try (IMAPFolder folder = open(name)) {
        int count = folder.getMessageCount();
        if (count > 0) {
          Message[] last = folder.getMessages(Math.max(1, count - most + 1), count);
          found.addAll(readable(folder, name, uids(folder, last)));
        }
      }
    }
    return found.stream()
        .sorted(
            Comparator.comparing((ObjectNode mail) -> arrivedAt(mail).orElse(Instant.EPOCH))
                .reversed())
        .limit(most)
        .map(JsonNode.class::cast)
        .toList();
  }

  /** Keeps a copy of a letter in a folder, which is made if it is not there. */
  void keep(String name, Message letter) throws MessagingException {
    Folder folder = store.getFolder(name);
    if (!folder.exists() && !folder.create(Folder.HOLDS_MESSAGES)) {
      throw new MessagingException("the folder “" + name + "” cannot be made");
    }
    folder.appendMessages(new Message[] {letter});
  }

  /** Sees that each folder can be opened. */
  void look(List<String> folders) throws MessagingException {
    for (String name : folders) {
      open(name).close();
    }
  }

  /** The folders that there are, for who named one that is not. */
  List<String> folders(int most) throws MessagingException {
    return Stream.of(store.getDefaultFolder().list("*"))
        .map(Folder::getFullName)
        .sorted()
        .limit(most)
        .toList();
  }

  private IMAPFolder open(String name) throws MessagingException {
    IMAPFolder folder = (IMAPFolder) store.getFolder(name);
    folder.open(Folder.READ_ONLY);
    return folder;
  }

  @Override
  public void close() throws MessagingException {
    store.close();
  }
}
