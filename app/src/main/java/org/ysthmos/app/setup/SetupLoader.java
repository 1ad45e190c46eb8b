package org.ysthmos.app.setup;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Properties;
import java.util.function.BiConsumer;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.example.Examples;
import org.ysthmos.app.incident.Alarms;
import org.ysthmos.app.practice.PracticeBridges;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.json.ExactJson;
import org.ysthmos.core.trial.PinnedExample;

/**
 * Loads the documents of the setup folder that are not known yet, and takes addresses and secrets
 * from the connections file: {@code system.address=…} and {@code secret.name=…}.
 */
@Component
class SetupLoader {

  private static final Logger LOG = LoggerFactory.getLogger(SetupLoader.class);

  /** The ending of the files with the examples of a bridge, which are called as it is. */
  private static final String EXAMPLES = ".examples.ndjson";

  private static final JsonMapper JSON = ExactJson.mapper();

  private final Settings settings;
  private final Systems systems;
  private final Tables tables;
  private final Bridges bridges;
  private final PracticeBridges practice;
  private final SecretVault vault;
  private final Examples examples;
  private final Alarms alarms;

  SetupLoader(
      Settings settings,
      Systems systems,
      Tables tables,
      Bridges bridges,
      PracticeBridges practice,
      SecretVault vault,
      Examples examples,
      Alarms alarms) {
    this.settings = settings;
    this.systems = systems;
    this.tables = tables;
    this.bridges = bridges;
    this.practice = practice;
    this.vault = vault;
    this.examples = examples;
    this.alarms = alarms;
    load();
  }

  private void load() {
    Path setup = settings.setup();
    if (setup != null) {
      each(setup.resolve("systems"), ".yaml", (file, text) -> systems.addIfNew(text));
      each(setup.resolve("calendars"), ".yaml", (file, text) -> tables.setUpCalendar(text));
      each(setup.resolve("tables"), ".yaml", (file, text) -> tables.setUp(text));
    }
    Path connections = settings.connections();
    if (connections != null) {
      connect(connections);
    }
    if (setup != null) {
      // Which places a bridge hears can stand in a table.
      bridges.refresh();
      each(setup.resolve("bridges"), ".yaml", (file, text) -> addIfNew(text));
      each(setup.resolve("practice"), ".yaml", (file, text) -> practice.setUp(text));
      each(setup.resolve("bridges"), EXAMPLES, this::pinIfNew);
      each(setup, "alarms.yaml", (file, text) -> alarms.addIfNew(text));
    }
  }

  private void addIfNew(String document) {
    String id = BridgeReader.read(DocumentNode.parse(document)).id();
    if (bridges.live(id).isEmpty() && bridges.retired(id).isEmpty()) {
      bridges.put(document, By.ENGINE);
    }
  }

  /** Pins the examples of a bridge's file, unless it has some already. */
  private void pinIfNew(Path file, String ndjson) {
    String name = String.valueOf(file.getFileName());
    String bridge = name.substring(0, name.length() - EXAMPLES.length());
    if (!examples.any(bridge)) {
      examples.add(
          bridge,
          ndjson
              .lines()
              .filter(line -> !line.isBlank())
              .map(line -> PinnedExample.read(tree(line)))
              .toList());
    }
  }

  private static JsonNode tree(String line) {
    try {
      return JSON.readTree(line);
    } catch (JsonProcessingException e) {
      throw new IllegalArgumentException("no JSON: " + e.getOriginalMessage(), e);
    }
  }

  private static void each(Path folder, String ending, BiConsumer<Path, String> take) {
    if (!Files.isDirectory(folder)) {
      return;
    }
    List<Path> files;
    try (Stream<Path> found = Files.list(folder)) {
      files = found.filter(f -> f.toString().endsWith(ending)).sorted().toList();
    } catch (IOException e) {
      throw new UncheckedIOException("cannot read the folder " + folder, e);
    }
    for (Path file : files) {
      try {
        take.accept(file, Files.readString(file));
      } catch (DocumentException | IllegalArgumentException e) {
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
      } else if (name.matches("[^.]+\\.([a-z]+-)?address")) {
        String[] parts = name.split("\\.", -1);
        systems.connect(parts[0], parts[1], URI.create(value));
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
