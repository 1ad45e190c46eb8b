package org.ysthmos.adapters.system;

import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.ysthmos.core.json.Pointer;

/**
 * How webhooks of a collection are read.
 *
 * @param verify how we know who sent them
 * @param event where the sender's id of an event stands, by which a redelivery is known
 * @param record where the id of the record stands
 * @param kind where the kind of event stands
 * @param kinds the system's word for a kind to ours
 * @param version where the mark stands that tells one change of the record from the next; with it a
 *     change that is also asked for is one event
 * @param place where the id of the place stands that it is of, where many places tell at one
 *     address
 * @param whole where the record stands in what is told, as it is when it is read by itself; empty
 *     if that is not said
 */
public record Push(
    Verify verify,
    IdAt event,
    Pointer record,
    Pointer kind,
    Map<String, String> kinds,
    Optional<Pointer> version,
    Optional<Pointer> whole,
    Optional<Pointer> place) {

  /** Where a record that is read by itself holds its version, if it stands elsewhere then. */
  Optional<Pointer> versionInRecord() {
    return version.flatMap(
        at ->
            whole
                .filter(outer -> at.tokens().size() > outer.tokens().size())
                .filter(
                    outer -> at.tokens().subList(0, outer.tokens().size()).equals(outer.tokens()))
                .map(
                    outer ->
                        new Pointer(
                            at.tokens().subList(outer.tokens().size(), at.tokens().size()))));
  }

  /** How we know who sent a webhook. */
  public sealed interface Verify {

    /** The name of the secret. */
    String secret();

    /** Signed as Standard Webhooks 1.0.0 says. */
    record StandardWebhooks(String secret) implements Verify {}

    /** A header carries the secret itself. */
    record SharedSecret(String header, String secret) implements Verify {}

    /**
     * A header carries an HMAC (RFC 2104) of the body.
     *
     * @param before what stands in the header before the signature, for example {@code sha256=}
     * @param hex whether it is written in hexadecimal digits; otherwise in Base64
     * @param hash one of {@link #HASHES}
     */
    record Signature(String header, String secret, String before, boolean hex, String hash)
        implements Verify {

      /** The word for a hash to what Java calls the HMAC with it. */
      public static final Map<String, String> HASHES =
          new TreeMap<>(
              Map.of("sha256", "HmacSHA256", "sha384", "HmacSHA384", "sha512", "HmacSHA512"));
    }

    /** The secret is the last part of the path. */
    record PathToken(String secret) implements Verify {}
  }

  /** Where the sender's id of an event stands. */
  public sealed interface IdAt {
    /** In a header. */
    record Header(String name) implements IdAt {}

    /** In the body. */
    record Body(Pointer at) implements IdAt {}

    /** Nowhere: each delivery is an event of its own. */
    record Nowhere() implements IdAt {}
  }
}
