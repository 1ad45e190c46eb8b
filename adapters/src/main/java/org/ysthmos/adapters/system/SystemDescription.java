package org.ysthmos.adapters.system;

import java.net.URI;
import java.time.Duration;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.load.RateLimit;
import org.ysthmos.core.shape.PlaceId;

/**
 * An outside system as its document describes it.
 *
 * @param address where it is; its scheme says which protocol is spoken
 * @param signIn how calls are signed in; empty if they are not
 * @param timeout for one call, connecting and answering each
 * @param limit the most calls it answers in a span of time, where it says so
 * @param trust by what it shows that it is who it should be
 * @param many the places that are described alike, by the id under which they are
 * @param practice where the faults of a system for practice are switched; empty for one in earnest
 */
public record SystemDescription(
    String id,
    String name,
    URI address,
    Optional<SignIn> signIn,
    Duration timeout,
    Optional<RateLimit> limit,
    Trust trust,
    Protocol protocol,
    Map<String, SystemCollection> collections,
    Map<String, ManyPlaces> many,
    Optional<URI> practice) {

  /** What is spoken with a system. */
  public interface Protocol {

    /** Opens the gateway to a system; nothing is called yet. */
    SystemGateway open(SystemDescription system, Surroundings surroundings);

    /**
     * Connects to each of its addresses as its calls would, and says nothing that matters; what is
     * called over HTTP needs no way of its own.
     *
     * @return why each address could not be connected to, by the key under which the document has
     *     it; empty for one that could
     */
    default Map<String, String> connect(SystemDescription system, Surroundings surroundings) {
      return Map.of();
    }

    /**
     * The same, with another of its own addresses.
     *
     * @param which the key under which the document has the address
     */
    default Protocol at(String which, URI address) {
      return this;
    }
  }

  public SystemDescription {
    collections = Collections.unmodifiableMap(new LinkedHashMap<>(collections));
    many = Collections.unmodifiableMap(new LinkedHashMap<>(many));
  }

  /**
   * The same system, reached at another address.
   *
   * @param which the key under which its document has the address, usually {@code address}
   */
  public SystemDescription at(String which, URI other) {
    boolean main = which.equals("address");
    boolean faults = which.equals("practice-address");
    return new SystemDescription(
        id,
        name,
        main ? other : address,
        signIn,
        timeout,
        limit,
        trust,
        main || faults ? protocol : protocol.at(which, other),
        collections,
        many,
        faults ? Optional.of(other) : practice);
  }

  /** The same system, trusted for something else. */
  public SystemDescription trusting(Trust other) {
    return new SystemDescription(
        id, name, address, signIn, timeout, limit, other, protocol, collections, many, practice);
  }

  /** The gateway that speaks with it. */
  public SystemGateway open(Surroundings surroundings) {
    return protocol.open(this, surroundings);
  }

  /**
   * @throws IllegalArgumentException if there is no such collection
   */
  public SystemCollection collection(String collection) {
    return find(collection)
        .orElseThrow(() -> new IllegalArgumentException(name + " has no collection " + collection));
  }

  /** A collection that is described, by itself or as one of many places. */
  public Optional<SystemCollection> find(String collection) {
    return Optional.ofNullable(collections.get(collection))
        .or(
            () ->
                PlaceId.parse(collection)
                    .flatMap(place -> manyOf(collection).map(all -> all.at(place.place()))));
  }

  /** Each collection as it is described; of many places alike, what they have in common. */
  public Stream<SystemCollection> described() {
    return Stream.concat(
        collections.values().stream(), many.values().stream().map(ManyPlaces::any));
  }

  /** Those that are described like a collection, where it is one of many places. */
  public Optional<ManyPlaces> manyOf(String collection) {
    return PlaceId.parse(collection).flatMap(place -> Optional.ofNullable(many.get(place.of())));
  }
}
