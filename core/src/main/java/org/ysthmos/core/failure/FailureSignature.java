package org.ysthmos.core.failure;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.regex.Pattern;

/**
 * By which failures of one cause are told from those of another: the same kind at the same place
 * about the same field with the same code, and a message that is the same but for what differs from
 * record to record. What stands in quotation marks, numbers, and words with digits in them (ids,
 * moments) do so; the rest of a sentence does not.
 */
public final class FailureSignature {

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
    return digest(cause);
  }

  /** The message with what differs from record to record left out. */
  static String pattern(String message) {
    String unquoted = QUOTED.matcher(message).replaceAll("“”");
    return WITH_DIGITS.matcher(unquoted).replaceAll("#");
  }

  private static String digest(String text) {
    try {
      byte[] hash =
          MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
      return HexFormat.of().formatHex(hash, 0, 16);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
