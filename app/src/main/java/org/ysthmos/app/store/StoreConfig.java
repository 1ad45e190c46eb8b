package org.ysthmos.app.store;

import java.io.File;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.ysthmos.app.Settings;

@Configuration
class StoreConfig {

  @Bean
  FreeSpace freeSpace(Settings settings) {
    File data = settings.data().toFile();
    return data::getUsableSpace;
  }

  /** The exit status after which whoever started the application starts it again. */
  @Bean
  LastResort lastResort() {
    // No hooks of the shutdown are run: they would wait for threads that turn in the dead database.
    return status -> Runtime.getRuntime().halt(status);
  }
}
