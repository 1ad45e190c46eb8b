package org.ysthmos.app.register;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;
import javax.imageio.ImageIO;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PictureTypeTest {

  /** Written by the image library of the JDK. */
  @ParameterizedTest
  @CsvSource({"png, image/png", "jpeg, image/jpeg", "gif, image/gif"})
  void whatALibraryWritesIsToldByItsFirstBytes(String format, String type) throws IOException {
    ByteArrayOutputStream written = new ByteArrayOutputStream();
    assertThat(ImageIO.write(new BufferedImage(3, 2, BufferedImage.TYPE_INT_RGB), format, written))
        .isTrue();
    byte[] picture = written.toByteArray();
    assertThat(PictureType.of(picture)).contains(type);
    assertThat(PictureType.of(Arrays.copyOf(picture, 2))).isEmpty();
  }

  /** The head of a simple file; RFC 9649, section 2.5. */
  @ParameterizedTest
  @CsvSource({
    "524946461A000000574542505650384C, image/webp",
    "524946461A000000574156456664, ",
    "474946383761, image/gif",
    "424D, ",
    "25504446, "
  })
  void otherHeads(String hex, String type) {
    assertThat(PictureType.of(HexFormat.of().parseHex(hex)).orElse(null)).isEqualTo(type);
  }

  @ParameterizedTest
  @CsvSource({"<svg xmlns='http://www.w3.org/2000/svg'/>", "<html>", "GIF88a", "''"})
  void textIsNone(String text) {
    assertThat(PictureType.of(text.getBytes(StandardCharsets.UTF_8))).isEmpty();
  }
}
