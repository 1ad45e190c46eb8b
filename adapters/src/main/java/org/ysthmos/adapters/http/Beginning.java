package org.ysthmos.adapters.http;

import java.io.ByteArrayOutputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** A body that is read as it comes, of which the beginning is kept. */
final class Beginning extends FilterInputStream {

  private final ByteArrayOutputStream kept = new ByteArrayOutputStream();
  private final long most;
  private long read;

  /**
   * @param most how many bytes it may have
   */
  Beginning(InputStream in, long most) {
    super(in);
    this.most = most;
  }

  byte[] kept() {
    return kept.toByteArray();
  }

  @Override
  public int read() throws IOException {
    byte[] one = new byte[1];
    return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
  }

  @Override
  public int read(byte[] into, int from, int length) throws IOException {
    int came = super.read(into, from, length);
    if (came > 0) {
      read += came;
      if (read > most) {
        throw new IOException("the answer is larger than " + most + " bytes");
      }
      // One more than is shown, so that it is seen that there was more.
      kept.write(into, from, Math.min(came, CallNotes.LONGEST_KEPT_BODY + 1 - kept.size()));
    }
    return came;
  }
}
