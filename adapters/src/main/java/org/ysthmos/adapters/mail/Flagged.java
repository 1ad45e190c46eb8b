package org.ysthmos.adapters.mail;

import java.util.HashMap;
import java.util.Map;
import java.util.NavigableSet;
import java.util.TreeSet;
import org.ysthmos.core.gateway.Seen;

/**
 * The mails of a folder of which it is known that they are flagged, and those that are to be read
 * again. Each is an item of its own, by its folder, UIDVALIDITY and UID.
 */
final class Flagged {

  private static final String FLAGGED = "flagged";

  private final String prefix;
  private final NavigableSet<Long> known = new TreeSet<>();
  private final NavigableSet<Long> again = new TreeSet<>();
  private final Map<String, String> changed = new HashMap<>();

  /** Of a folder under its UIDVALIDITY; what is known under another one is forgotten. */
  Flagged(String folder, long validity, Seen seen) {
    this.prefix = prefix(folder, validity);
    for (Map.Entry<String, String> item : seen.items().entrySet()) {
      String name = item.getKey();
      if (name.startsWith(prefix)) {
        long uid = Long.parseLong(name.substring(prefix.length()));
        if (item.getValue().equals(FLAGGED)) {
          known.add(uid);
        } else if (item.getValue().startsWith(Seen.AGAIN)) {
          again.add(uid);
        }
      } else if (isOfAnotherValidity(folder, name)) {
        changed.put(name, "");
      }
    }
  }

  private static boolean isOfAnotherValidity(String folder, String item) {
    return item.startsWith(folder + "/")
        && item.substring(folder.length() + 1).matches("\\d+/\\d+");
  }

  private static String prefix(String folder, long validity) {
    return folder + "/" + validity + "/";
  }

  /** The name of a mail among the items. */
  static String item(String folder, long validity, long uid) {
    return prefix(folder, validity) + uid;
  }

  NavigableSet<Long> again() {
    return new TreeSet<>(again);
  }

  void readAgain(long uid) {
    changed.put(prefix + uid, "");
  }

  void add(long uid) {
    if (known.add(uid)) {
      changed.put(prefix + uid, FLAGGED);
    }
  }

  /** Forgets those that are not flagged any more. */
  void keepOnly(NavigableSet<Long> flagged) {
    for (long uid : new TreeSet<>(known)) {
      if (!flagged.contains(uid)) {
        known.remove(uid);
        changed.put(prefix + uid, "");
      }
    }
  }

  /** Those of which it is not known. */
  NavigableSet<Long> without(NavigableSet<Long> flagged) {
    NavigableSet<Long> fresh = new TreeSet<>(flagged);
    fresh.removeAll(known);
    return fresh;
  }

  /** What is known now and was not before; an empty state where nothing is known any more. */
  Map<String, String> changed() {
    return changed;
  }
}
