package org.ysthmos.adapters.mail;

import java.util.Collection;
import java.util.NavigableSet;
import java.util.StringJoiner;
import java.util.TreeSet;

/** A set of UIDs as IMAP writes it (RFC 9051 section 9, {@code sequence-set}): {@code 3,7:12}. */
final class UidSet {

  private UidSet() {}

  /** Runs of neighbours are written as one; an empty set as an empty text. */
  static String write(Collection<Long> uids) {
    StringJoiner text = new StringJoiner(",");
    Long first = null;
    Long last = null;
    for (Long uid : new TreeSet<>(uids)) {
      if (last != null && uid == last + 1) {
        last = uid;
        continue;
      }
      if (first != null && last != null) {
        text.add(run(first, last));
      }
      first = uid;
      last = uid;
    }
    if (first != null && last != null) {
      text.add(run(first, last));
    }
    return text.toString();
  }

  private static String run(long first, long last) {
    return first == last ? Long.toString(first) : first + ":" + last;
  }

  /**
   * @throws NumberFormatException if it is no such set
   */
  static NavigableSet<Long> read(String text) {
    NavigableSet<Long> uids = new TreeSet<>();
    if (text.isEmpty()) {
      return uids;
    }
    for (String part : text.split(",", -1)) {
      int colon = part.indexOf(':');
      long first = Long.parseLong(colon < 0 ? part : part.substring(0, colon));
      long last = colon < 0 ? first : Long.parseLong(part.substring(colon + 1));
      for (long uid = first; uid <= last; uid++) {
        uids.add(uid);
      }
    }
    return uids;
  }
}
