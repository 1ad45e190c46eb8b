package org.ysthmos.app.trace;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.springframework.stereotype.Component;

/** A story as it is kept: one compressed JSON document. */
@Component
public class StoryCodec {

  private final ObjectMapper json;

  StoryCodec(ObjectMapper json) {
    this.json = json;
  }

  public byte[] write(TraceStory story) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (GZIPOutputStream zip = new GZIPOutputStream(bytes)) {
      json.writeValue(zip, story);
    } catch (IOException e) {
      throw new UncheckedIOException("a story cannot be written", e);
    }
    return bytes.toByteArray();
  }

  public TraceStory read(TraceMapper.StoryRow kept) {
    try (GZIPInputStream unzip = new GZIPInputStream(new ByteArrayInputStream(kept.story()))) {
      return json.readValue(unzip, TraceStory.class);
    } catch (IOException e) {
      throw new UncheckedIOException("a story cannot be read", e);
    }
  }
}
