package org.ysthmos.adapters.hook;

import java.security.GeneralSecurityException;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/** Keyed hashes (RFC 2104). */
final class Hmac {

  private Hmac() {}

  /**
   * @param algorithm as Java calls it, for example {@code HmacSHA256}
   * @param parts hashed one after the other
   */
  static byte[] of(String algorithm, byte[] key, byte[]... parts) {
    try {
      Mac mac = Mac.getInstance(algorithm);
      mac.init(new SecretKeySpec(key, algorithm));
      for (byte[] part : parts) {
        mac.update(part);
      }
      return mac.doFinal();
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("every Java platform has " + algorithm, e);
    }
  }
}
