package org.ysthmos.e2e;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** A file system so small that it can be filled. */
final class SmallDisk {

  private static final String FILLER = "filler";
  private static final byte[] BLOCK = new byte[1 << 16];

  private SmallDisk() {}

  /**
   * Fills a disk with what belongs to nobody.
   *
   * @param left how many bytes stay free, about
   */
  static void fill(Path disk, long left) {
    try (OutputStream out = Files.newOutputStream(disk.resolve(FILLER))) {
      while (disk.toFile().getUsableSpace() > left) {
        out.write(BLOCK);
      }
    } catch (IOException full) {
      if (disk.toFile().getUsableSpace() > BLOCK.length) {
        throw new UncheckedIOException("it is not full, and yet could not be written", full);
      }
    }
  }

  static void free(Path disk) {
    try {
      Files.deleteIfExists(disk.resolve(FILLER));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
