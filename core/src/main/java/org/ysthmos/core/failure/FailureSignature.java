package org.ysthmos.core.failure;

import java.util.regex.Pattern;
import org.ysthmos.core.text.Digest;

/**
 * By which failures of one cause are told from those of another: the same kind at the same place
 * about the same field with the same code, and a message that is the same but for what differs from
 * record to record. What stands in quotation marks, numbers, and words with digits in them (ids,
 * moments) do so; the rest of a sentence does not.
 */
public final class FailureSignature {

  /** How many of the digest are kept. */
  private static final int DIGITS = 32;

  private static final Pattern QUOTED = Pattern.compile("“[^”]*”|\"[^\"]*\"|'[^']*'");
  private static final Pattern WITH_DIGITS =
      Pattern.compile("[\\p{L}\\p{N}_.:/+-]*\\p{N}[\\p{L}\\p{N}_.:/+-]*");

  private FailureSignature() {}

  /**
   * @param system where it happened; empty if it happened here
   * @param collection where in the system; empty if that does not matter
   * @return 32 hexadecimal digits
   */
  public static String of(Failure failure, String system, String collection) {
    String cause =
        String.join(
            "\n",
            failure.kind().name(),
            system,
            collection,
            failure.field().orElse(""),
            failure.code().orElse(""),
            pattern(failure.message()));
    return Digest.sha256(cause).substring(0, DIGITS);
  }

  /** The message with what differs from record to record left out. */
  static String pattern(String message) {
    String unquoted = QUOTED.matcher(message).replaceAll("“”");
    return WITH_DIGITS.matcher(unquoted).replaceAll("#");
  }
}
