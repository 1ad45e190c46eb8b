package org.ysthmos.app.store;

import java.io.File;
import org.springframework.beans.factory.config.BeanFactoryPostProcessor;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.ysthmos.app.Settings;

@Configuration
class StoreConfig {

  /**
   * Before the database is opened. Its cache of equal values would hash each body that is read, and
   * all threads would write to it.
   */
  @Bean
  static BeanFactoryPostProcessor databaseSettings() {
    return beans -> System.setProperty("h2.objectCache", "false");
  }

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
