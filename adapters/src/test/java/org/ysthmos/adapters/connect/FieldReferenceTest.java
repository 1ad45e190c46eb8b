package org.ysthmos.adapters.connect;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/** The published list of fields is what the code reads and writes. */
class FieldReferenceTest {

  @Test
  void referencePageOfTheFieldsIsPublished() throws IOException {
    Path path = Path.of("..", "docs", "fields.md");
    if (Boolean.getBoolean("publish")) {
      Files.writeString(path, FieldReference.write());
    }
    assertThat(path)
        .content()
        .as("write it anew with -Dpublish=true")
        .isEqualTo(FieldReference.write());
  }
}
