package org.ysthmos.core.failure;

/** Why something failed. The kind decides what happens next. */
public enum FailureKind {
  RATE_LIMITED("too many calls", Next.RETRY_BY_ITSELF),
  QUOTA_FULL("quota full", Next.AFTER_A_PERSON_ACTED),
  NOT_ALLOWED("not allowed", Next.AFTER_A_PERSON_ACTED),
  NOT_SIGNED_IN("not signed in", Next.AFTER_A_PERSON_ACTED),
  NOT_FOUND("not found", Next.AFTER_A_PERSON_ACTED),
  VALUE_REFUSED("value refused", Next.AFTER_A_PERSON_ACTED),
  CHANGED_MEANWHILE("changed meanwhile", Next.RETRY_BY_ITSELF),
  UNREACHABLE("unreachable", Next.RETRY_BY_ITSELF),
  /** The request may or may not have been carried out; look for its key before trying again. */
  ANSWER_UNKNOWN("answer unknown", Next.RETRY_BY_ITSELF),
  SHAPE_CHANGED("shape changed", Next.AFTER_A_PERSON_ACTED),
  /** What another event makes is not there yet; the event waits for it, as its bridge says. */
  NOT_YET_THERE("not there yet", Next.RETRY_BY_ITSELF),
  LOOKUP_EMPTY("lookup empty", Next.AFTER_A_PERSON_ACTED),
  LOOKUP_AMBIGUOUS("lookup ambiguous", Next.AFTER_A_PERSON_ACTED),
  MAPPING_ERROR("mapping error", Next.AFTER_A_PERSON_ACTED),
  /** It reads nearly like a task that is open, and its bridge waits for a person. */
  POSSIBLE_DUPLICATE("may be there already", Next.AFTER_A_PERSON_ACTED),
  /** What stands at a source is not what it should be, and was set aside. */
  UNREADABLE("cannot be read", Next.AFTER_A_PERSON_ACTED),
  /** A fault of ours that came again and again; the log says more. */
  BROKE_HERE("broke here", Next.AFTER_A_PERSON_ACTED);

  /** What a failure of a kind asks for. */
  public enum Next {
    RETRY_BY_ITSELF,
    AFTER_A_PERSON_ACTED
  }

  private final String words;
  private final Next next;

  FailureKind(String words, Next next) {
    this.words = words;
    this.next = next;
  }

  /** The kind in the words of the screens. */
  public String words() {
    return words;
  }

  public boolean retriesByItself() {
    return next == Next.RETRY_BY_ITSELF;
  }

  /** Whether it says that the system does not work just now, whatever is asked of it. */
  public boolean isOfTheSystem() {
    return this == UNREACHABLE || this == ANSWER_UNKNOWN;
  }
}
