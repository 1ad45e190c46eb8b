package org.ysthmos.app.connect;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.connect.CertificateLook;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.openapi.DescriptionText;
import org.ysthmos.adapters.openapi.SystemDraft;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.shape.Shapes;

/** Drafts, tries and keeps the documents of systems. */
@Component
class Connecting {

  private final Systems systems;
  private final Bridges bridges;
  private final SecretVault vault;
  private final AppClock clock;
  private final Settings settings;

  Connecting(
      Systems systems, Bridges bridges, SecretVault vault, AppClock clock, Settings settings) {
    this.systems = systems;
    this.bridges = bridges;
    this.vault = vault;
    this.clock = clock;
    this.settings = settings;
  }

  /**
   * A draft, or what could be drafted where that is more than anybody wants at once.
   *
   * @param draft empty if a person must say first which collections are wanted
   * @param offers all collections that the description hints at
   */
  record Drafted(Optional<SystemDraft> draft, List<SystemDraft.Offer> offers) {}

  /**
   * Drafts a document.
   *
   * @param address where an OpenAPI description is published; empty if it is given
   * @param wanted the collections to draft, by their ids; none if nothing is said of it
   */
  Drafted draft(String address, String description, Set<String> wanted) {
    try {
      Optional<URI> from = address.isBlank() ? Optional.empty() : Optional.of(address(address));
      String text =
          from.isPresent() ? DescriptionText.read(from.get(), surroundings(Map.of())) : description;
      JsonNode parsed = DescriptionText.parse(text);
      List<SystemDraft.Offer> offers = SystemDraft.offers(parsed);
      if (wanted.isEmpty() && offers.size() > SystemDraft.MOST_UNASKED) {
        return new Drafted(Optional.empty(), offers);
      }
      Predicate<String> which = wanted.isEmpty() ? id -> true : wanted::contains;
      return new Drafted(Optional.of(SystemDraft.of(parsed, from, which)), offers);
    } catch (SystemDraft.Unusable e) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY, "No draft", String.valueOf(e.getMessage()));
    }
  }

  private static URI address(String text) {
    try {
      URI address = URI.create(text.strip());
      if (address.getHost() != null && String.valueOf(address.getScheme()).matches("https?")) {
        return address;
      }
    } catch (IllegalArgumentException e) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY, "No draft", "“" + text + "” is no address.", e);
    }
    throw new ApiProblem(
        HttpStatus.UNPROCESSABLE_ENTITY,
        "No draft",
        "An address starts with https:// or http:// and names a host.");
  }

  /** Does something with the system of a document that is not kept yet. */
  <T> T with(String document, Map<String, String> secrets, Function<Opened, T> use) {
    SystemDescription description = systems.asReached(document);
    try (SystemGateway gateway = description.open(surroundings(secrets))) {
      return use.apply(new Opened(description, gateway));
    }
  }

  /** Looks at the certificates that the system of a document shows; nothing is signed in to. */
  CertificateLook.Looked look(String document) {
    SystemDescription system = systems.asReached(document);
    Surroundings unsigned =
        new Surroundings(
            name -> Optional.empty(), clock, settings.outgoing().policy(), settings.drops());
    return CertificateLook.at(system, unsigned);
  }

  /** A system that is open for a try. */
  record Opened(SystemDescription description, SystemGateway gateway) {}

  /** What is typed just now goes before what is kept. */
  private Surroundings surroundings(Map<String, String> secrets) {
    return new Surroundings(
        name ->
            Optional.ofNullable(secrets.get(name))
                .filter(secret -> !secret.isEmpty())
                .or(() -> vault.find(name)),
        clock,
        settings.outgoing().policy(),
        settings.drops());
  }

  /**
   * Keeps a document and its secrets.
   *
   * @throws ApiProblem if a live bridge could not be used with it
   */
  void keep(String document, Map<String, String> secrets) {
    SystemDescription changed = SystemReader.read(document);
    Shapes shapes =
        (system, collection) ->
            system.equals(changed.id())
                ? changed.find(collection).map(SystemCollection::able)
                : systems.find(system, collection);
    Map<String, String> broken = bridges.brokenBy(shapes);
    if (!broken.isEmpty()) {
      StringBuilder why =
          new StringBuilder("Nothing was kept, since live bridges need what it leaves out. ");
      broken.forEach((name, problem) -> why.append(name).append(": ").append(problem).append(". "));
      throw new ApiProblem(
          HttpStatus.CONFLICT, "A live bridge could not be used", why.toString().strip());
    }
    secrets.forEach(
        (name, secret) -> {
          if (!secret.isEmpty()) {
            vault.keep(name, secret);
          }
        });
    systems.put(document);
    bridges.refresh();
  }
}
