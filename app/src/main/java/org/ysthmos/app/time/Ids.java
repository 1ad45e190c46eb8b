package org.ysthmos.app.time;

import java.security.SecureRandom;
import java.time.Instant;
import java.util.HexFormat;

/**
 * Makes ids: UUIDs of version 7 (RFC 9562 section 5.7) as 32 hexadecimal digits, so that they sort
 * by time and serve as W3C trace ids as they are.
 */
public final class Ids {

  private static final SecureRandom RANDOM = new SecureRandom();

  private Ids() {}

  public static String at(Instant now) {
    byte[] bytes = new byte[16];
    RANDOM.nextBytes(bytes);
    long millis = now.toEpochMilli();
    for (int i = 0; i < 6; i++) {
      bytes[i] = (byte) (millis >>> (40 - 8 * i));
    }
    bytes[6] = (byte) (0x70 | (bytes[6] & 0x0f));
    bytes[8] = (byte) (0x80 | (bytes[8] & 0x3f));
    return HexFormat.of().formatHex(bytes);
  }
}
