package org.ysthmos.core.shape;

import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/**
 * One of the many places that a system's document describes alike, such as one list of all its
 * lists. Each is a collection, called {@code lists:42}.
 *
 * @param of the id under which the document describes them
 * @param place the id that its system gives it
 */
public record PlaceId(String of, String place) {

  private static final char BETWEEN = ':';

  /** The id of the collection that it is (RFC 3986, section 2.1). */
  public String collection() {
    return of + BETWEEN + encoded();
  }

  /** The id of the place with what no part of an address should hold percent-encoded. */
  public String encoded() {
    return URLEncoder.encode(place, StandardCharsets.UTF_8).replace("+", "%20");
  }

  /** Whether two collections are the same, or places that are described alike. */
  public static boolean areAlike(String one, String other) {
    return one.equals(other)
        || parse(one)
            .flatMap(place -> parse(other).filter(too -> too.of().equals(place.of())))
            .isPresent();
  }

  /** Empty if a collection is none of many places. */
  public static Optional<PlaceId> parse(String collection) {
    int between = collection.indexOf(BETWEEN);
    if (between < 1 || between == collection.length() - 1) {
      return Optional.empty();
    }
    try {
      return Optional.of(
          new PlaceId(
              collection.substring(0, between),
              URLDecoder.decode(collection.substring(between + 1), StandardCharsets.UTF_8)));
    } catch (IllegalArgumentException notEncoded) {
      return Optional.empty();
    }
  }
}
