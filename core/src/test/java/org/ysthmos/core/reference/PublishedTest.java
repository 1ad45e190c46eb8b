package org.ysthmos.core.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/**
 * What is published in {@code docs/} is what the code says. Run with {@code -Dpublish=true} to
 * write it anew.
 */
class PublishedTest {

  private static final Path DOCS = Path.of("..", "docs");

  private static void requirePublished(String file, String content) throws IOException {
    Path path = DOCS.resolve(file);
    if (Boolean.getBoolean("publish")) {
      Files.writeString(path, content);
    }
    assertThat(path).content().as("write it anew with -Dpublish=true").isEqualTo(content);
  }

  @Test
  void referencePageOfTheStepsIsPublished() throws IOException {
    requirePublished("steps.md", StepReference.write());
  }

  @Test
  void schemaOfBridgesIsPublished() throws IOException {
    requirePublished("bridge.schema.json", BridgeSchema.write().toPrettyString() + "\n");
  }
}
