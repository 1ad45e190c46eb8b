package org.ysthmos.app.system;

import jakarta.annotation.PreDestroy;
import java.net.URI;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.http.HttpSystem;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.adapters.system.SystemReader;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.Shapes;

/** The connected systems: what they offer, and the gateways to them. */
@Component
public class Systems implements Shapes {

  /** A system with the gateway that speaks to it. */
  public record Connected(SystemDescription description, HttpSystem gateway) {}

  private final SystemMapper mapper;
  private final SecretVault secrets;
  private final AppClock clock;
  private final List<HttpSystem> replaced = new ArrayList<>();
  private volatile Map<String, Connected> connected = Map.of();

  Systems(SystemMapper mapper, SecretVault secrets, AppClock clock) {
    this.mapper = mapper;
    this.secrets = secrets;
    this.clock = clock;
    reload();
  }

  private void reload() {
    Map<String, Connected> fresh = new LinkedHashMap<>();
    for (SystemMapper.SystemRow row : mapper.all()) {
      SystemDescription description = SystemReader.read(row.document());
      if (row.address() != null) {
        description = description.at(URI.create(row.address()));
      }
      fresh.put(
          row.id(), new Connected(description, new HttpSystem(description, secrets::find, clock)));
    }
    connected.values().forEach(old -> replaced.add(old.gateway()));
    connected = Map.copyOf(fresh);
  }

  /**
   * Adds a system if none of its id is there.
   *
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public synchronized void addIfNew(String document) {
    SystemDescription description = SystemReader.read(document);
    if (!connected.containsKey(description.id())) {
      mapper.add(description.id(), document, clock.instant());
      reload();
    }
  }

  /** Says where a system is reached. */
  public synchronized void connect(String id, URI address) {
    mapper.connect(id, address.toString());
    reload();
  }

  /** All systems, by id. */
  public List<Connected> all() {
    return connected.values().stream()
        .sorted(Comparator.comparing(system -> system.description().id()))
        .toList();
  }

  public Optional<Connected> find(String id) {
    return Optional.ofNullable(connected.get(id));
  }

  public Optional<SystemDescription.Collection> collection(String system, String collection) {
    return find(system)
        .flatMap(found -> Optional.ofNullable(found.description().collections().get(collection)));
  }

  @Override
  public Optional<CollectionShape> find(String system, String collection) {
    return collection(system, collection).map(SystemDescription.Collection::shape);
  }

  /** The page on which a person sees a record, if the system has one. */
  public Optional<URI> page(String system, String collection, String record) {
    return find(system)
        .flatMap(
            found ->
                collection(system, collection)
                    .flatMap(SystemDescription.Collection::page)
                    .map(
                        page ->
                            URI.create(
                                found.description().address() + page.replace("{id}", record))));
  }

  @PreDestroy
  void close() {
    replaced.forEach(HttpSystem::close);
    connected.values().forEach(old -> old.gateway().close());
  }
}
