package org.ysthmos.core.gateway;

import java.time.Duration;
import java.time.Instant;
import java.util.List;

/**
 * A call as it was sent and answered, with secrets masked.
 *
 * @param purpose what it was made for
 * @param request the request line, then headers, as {@code name: value}
 * @param status 0 if there was no answer
 * @param problem why there was no answer; empty otherwise
 */
public record RemoteCall(
    String system,
    Purpose purpose,
    Instant start,
    Duration took,
    List<String> request,
    String requestBody,
    int status,
    List<String> response,
    String responseBody,
    String problem) {

  /** What a call is made for. */
  public enum Purpose {
    /** Reading records. */
    READ("reading"),
    /** Asking what changed. */
    POLL("asking what changed"),
    /** Looking for what an effect with an unknown answer may have made. */
    FIND_BY_KEY("looking for the task by its key"),
    /** Making a task. */
    CREATE("making the task"),
    /** A further call that belongs to the making of a task. */
    COMPLETE("adding the details"),
    CHANGE("changing the task"),
    /** Reading the version of a task before it is changed. */
    READ_VERSION("reading the task's version"),
    REMOVE("taking the task away"),
    /** Handing in a letter. */
    SEND("handing the letter in"),
    /** Keeping a copy of a letter. */
    KEEP_COPY("keeping a copy of the letter"),
    /** Reading how full the system is. */
    READ_QUOTA("reading how full it is"),
    READ_NAMES("reading its names");

    private final String words;

    Purpose(String words) {
      this.words = words;
    }

    /** What is being done, in the words of a story: {@code making the task}. */
    public String words() {
      return words;
    }
  }
}
