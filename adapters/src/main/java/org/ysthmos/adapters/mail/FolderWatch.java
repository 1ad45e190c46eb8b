package org.ysthmos.adapters.mail;

import jakarta.mail.Folder;
import jakarta.mail.MessagingException;
import jakarta.mail.Store;
import jakarta.mail.event.MessageChangedListener;
import jakarta.mail.event.MessageCountAdapter;
import jakarta.mail.event.MessageCountEvent;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.eclipse.angus.mail.imap.IMAPFolder;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.ysthmos.core.gateway.ChangeGateway.Listening;

/**
 * Listens to folders by IDLE (RFC 2177), each on a connection of its own, since IMAP selects one
 * folder a connection. A connection that breaks is opened again, later each time; meanwhile the
 * folders are asked at their interval.
 */
final class FolderWatch implements Listening {

  private static final Logger LOG = LoggerFactory.getLogger(FolderWatch.class);

  /** More are only asked. Common practice, no source: servers allow some ten connections. */
  private static final int MOST_FOLDERS = 5;

  private static final Duration FIRST_PAUSE = Duration.ofSeconds(1);
  private static final Duration LONGEST_PAUSE = Duration.ofMinutes(5);

  private final MailAccount account;
  private final String system;
  private final Runnable changed;
  private final CountDownLatch closed = new CountDownLatch(1);
  private final List<OneFolder> folders = new ArrayList<>();

  FolderWatch(MailAccount account, String system, List<String> names, Runnable changed) {
    this.account = account;
    this.system = system;
    this.changed = changed;
    for (String name : names.subList(0, Math.min(MOST_FOLDERS, names.size()))) {
      OneFolder folder = new OneFolder(name);
      folders.add(folder);
      Thread.ofPlatform().daemon().name("listen " + system + " " + name).start(folder::run);
    }
  }

  private final class OneFolder {
    private final String name;
    private volatile @Nullable Store store;

    OneFolder(String name) {
      this.name = name;
    }

    void run() {
      Duration pause = FIRST_PAUSE;
      try {
        while (closed.getCount() > 0) {
          long began = System.nanoTime();
          listen();
          boolean lasted = System.nanoTime() - began > LONGEST_PAUSE.toNanos();
          pause = lasted ? FIRST_PAUSE : pause;
          if (closed.await(pause.toMillis(), TimeUnit.MILLISECONDS)) {
            return;
          }
          Duration doubled = pause.multipliedBy(2);
          pause = doubled.compareTo(LONGEST_PAUSE) > 0 ? LONGEST_PAUSE : doubled;
        }
      } catch (InterruptedException stopped) {
        Thread.currentThread().interrupt();
      }
    }

    /** Returns when the connection breaks or the watch is closed. */
    private void listen() {
      try (Store opened = account.listen()) {
        store = opened;
        IMAPFolder folder = (IMAPFolder) opened.getFolder(name);
        folder.open(Folder.READ_ONLY);
        folder.addMessageCountListener(
            new MessageCountAdapter() {
              @Override
              public void messagesAdded(MessageCountEvent added) {
                changed.run();
              }
            });
        MessageChangedListener flags = one -> changed.run();
        folder.addMessageChangedListener(flags);
        // What came while nobody listened is asked for at once.
        changed.run();
        while (closed.getCount() > 0) {
          folder.idle(true);
        }
      } catch (MessagingException | RuntimeException e) {
        if (closed.getCount() > 0) {
          LOG.info("{}, {} is only asked just now: {}", system, name, e.toString());
        }
      } finally {
        store = null;
      }
    }

    void close() {
      Store opened = store;
      if (opened != null) {
        try {
          opened.close();
        } catch (MessagingException e) {
          LOG.debug("{}, {} could not be closed", system, name, e);
        }
      }
    }
  }

  @Override
  public void close() {
    closed.countDown();
    folders.forEach(OneFolder::close);
  }
}
