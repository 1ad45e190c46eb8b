package org.ysthmos.app.backup;

import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.beans.factory.config.BeanFactoryPostProcessor;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.env.Environment;

/**
 * Keeps the application from starting on what is put back in part: it would begin a new database.
 */
@Configuration
class Restoring {

  static Path in(Path data) {
    return data.resolve("restoring");
  }

  /** Before any other part is made, the database above all. */
  @Bean
  static BeanFactoryPostProcessor wholeData(Environment settings) {
    return factory -> refuseHalf(Path.of(settings.getRequiredProperty("ysthmos.data")));
  }

  static void refuseHalf(Path data) {
    if (Files.exists(in(data))) {
      throw new IllegalStateException(
          "A restore of "
              + data.toAbsolutePath()
              + " was broken off. Do it once more: ./run restore FILE");
    }
  }
}
