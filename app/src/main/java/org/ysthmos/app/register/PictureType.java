package org.ysthmos.app.register;

import java.util.Arrays;
import java.util.Optional;

/**
 * Tells by its first bytes what a picture is, whatever its sender calls it. Only kinds that cannot
 * carry anything that a browser would run.
 */
final class PictureType {

  /** W3C, Portable Network Graphics (Third Edition), section 5.2. */
  private static final byte[] PNG = {(byte) 0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};

  /** Start of image and the marker behind it: ITU-T T.81, table B.1. */
  private static final byte[] JPEG = {(byte) 0xff, (byte) 0xd8, (byte) 0xff};

  /** CompuServe, Graphics Interchange Format 89a and 87a, section 17. */
  private static final byte[] GIF_89A = {'G', 'I', 'F', '8', '9', 'a'};

  private static final byte[] GIF_87A = {'G', 'I', 'F', '8', '7', 'a'};

  /** RFC 9649, section 2.4. */
  private static final byte[] RIFF = {'R', 'I', 'F', 'F'};

  private static final byte[] WEBP = {'W', 'E', 'B', 'P'};
  private static final int WEBP_AT = 8;

  private PictureType() {}

  /** The media type; empty if it is none of those that are shown. */
  static Optional<String> of(byte[] picture) {
    if (has(picture, 0, PNG)) {
      return Optional.of("image/png");
    }
    if (has(picture, 0, JPEG)) {
      return Optional.of("image/jpeg");
    }
    if (has(picture, 0, GIF_89A) || has(picture, 0, GIF_87A)) {
      return Optional.of("image/gif");
    }
    return has(picture, 0, RIFF) && has(picture, WEBP_AT, WEBP)
        ? Optional.of("image/webp")
        : Optional.empty();
  }

  private static boolean has(byte[] picture, int at, byte[] bytes) {
    return picture.length >= at + bytes.length
        && Arrays.equals(picture, at, at + bytes.length, bytes, 0, bytes.length);
  }
}
