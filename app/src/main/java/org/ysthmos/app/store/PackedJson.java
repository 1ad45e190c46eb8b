package org.ysthmos.app.store;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.util.zip.Deflater;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/**
 * JSON as bytes for keeping: as it is while it is short, since that is read quickest, and gzipped
 * (RFC 1952) once it is long. Which it is, its first byte says.
 */
public final class PackedJson {

  /** Above so many bytes it is worth its time. */
  private static final int LONG = 2_000;

  private static final int FIRST_OF_GZIP = 0x1f;

  private static final ObjectMapper JSON = new JsonMapper();

  private PackedJson() {}

  public static byte[] pack(JsonNode node) {
    try {
      return pack(JSON.writeValueAsBytes(node));
    } catch (IOException e) {
      throw new UncheckedIOException("it cannot be written as JSON", e);
    }
  }

  /**
   * @param plain JSON in UTF-8
   */
  public static byte[] pack(byte[] plain) {
    try {
      if (plain.length <= LONG) {
        return plain;
      }
      ByteArrayOutputStream bytes = new ByteArrayOutputStream(LONG);
      try (OutputStream zip = gzip(bytes)) {
        zip.write(plain);
      }
      return bytes.toByteArray();
    } catch (IOException e) {
      throw new UncheckedIOException("it cannot be gzipped", e);
    }
  }

  /**
   * @throws UncheckedIOException if it was not made by {@link #pack(JsonNode)}
   */
  public static JsonNode unpack(byte[] packed) {
    try {
      return JSON.readTree(plain(packed));
    } catch (IOException e) {
      throw new UncheckedIOException("what was kept cannot be read as JSON", e);
    }
  }

  /**
   * What was packed, as JSON in UTF-8.
   *
   * @throws UncheckedIOException if it was not made by {@link #pack(byte[])}
   */
  public static byte[] plain(byte[] packed) {
    if (packed.length == 0 || packed[0] != FIRST_OF_GZIP) {
      return packed;
    }
    try (InputStream plain = new GZIPInputStream(new ByteArrayInputStream(packed))) {
      return plain.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException("what was kept cannot be unzipped", e);
    }
  }

  /** Most of the time goes into compressing; the quickest way is hardly longer in the end. */
  public static OutputStream gzip(OutputStream to) throws IOException {
    return new Quick(to);
  }

  private static final class Quick extends GZIPOutputStream {
    Quick(OutputStream out) throws IOException {
      super(out);
      def.setLevel(Deflater.BEST_SPEED);
    }
  }
}
