package org.ysthmos.app.setup;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Properties;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;

/**
 * Loads the documents of the setup folder that are not known yet, and takes addresses and secrets
 * from the connections file: {@code system.address=…} and {@code secret.name=…}.
 */
@Component
class SetupLoader {

  private static final Logger LOG = LoggerFactory.getLogger(SetupLoader.class);

  private final Settings settings;
  private final Systems systems;
  private final Tables tables;
  private final Bridges bridges;
  private final SecretVault vault;

  SetupLoader(
      Settings settings, Systems systems, Tables tables, Bridges bridges, SecretVault vault) {
    this.settings = settings;
    this.systems = systems;
    this.tables = tables;
    this.bridges = bridges;
    this.vault = vault;
    load();
  }

  private void load() {
    Path setup = settings.setup();
    if (setup != null) {
      each(setup.resolve("systems"), systems::addIfNew);
      each(setup.resolve("calendars"), tables::addCalendarIfNew);
      each(setup.resolve("tables"), tables::addIfNew);
    }
    Path connections = settings.connections();
    if (connections != null) {
      connect(connections);
    }
    if (setup != null) {
      each(setup.resolve("bridges"), this::addIfNew);
    }
  }

  private void addIfNew(String document) {
    if (bridges.live(BridgeReader.read(DocumentNode.parse(document)).id()).isEmpty()) {
      bridges.put(document);
    }
  }

  private static void each(Path folder, Consumer<String> take) {
    if (!Files.isDirectory(folder)) {
      return;
    }
    List<Path> files;
    try (Stream<Path> found = Files.list(folder)) {
      files = found.filter(f -> f.toString().endsWith(".yaml")).sorted().toList();
    } catch (IOException e) {
      throw new UncheckedIOException("cannot read the folder " + folder, e);
    }
    for (Path file : files) {
      try {
        take.accept(Files.readString(file));
      } catch (DocumentException e) {
        LOG.error("{} was left out: {}", file, e.getMessage());
      } catch (IOException e) {
        throw new UncheckedIOException("cannot read " + file, e);
      }
    }
  }

  private void connect(Path file) {
    Properties connections = new Properties();
    try (InputStream in = Files.newInputStream(file)) {
      connections.load(in);
    } catch (IOException e) {
      throw new UncheckedIOException("cannot read " + file, e);
    }
    for (String name : connections.stringPropertyNames()) {
      String value = connections.getProperty(name);
      if (name.startsWith("secret.")) {
        vault.keep(name.substring("secret.".length()), value);
      } else if (name.endsWith(".address")) {
        systems.connect(name.substring(0, name.length() - ".address".length()), URI.create(value));
      } else {
        LOG.warn("{} has a line that means nothing here: {}", file, name);
      }
    }
  }

  @EventListener(ApplicationReadyEvent.class)
  void ready() {
    LOG.info("Ysthmos is ready at http://localhost:{}", settings.port());
  }
}
