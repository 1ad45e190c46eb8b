package org.ysthmos.adapters.http;

import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.apache.hc.client5.http.utils.URIUtils;

/**
 * Links of an answer, as RFC 8288 section 3 writes them: {@code <https://example.com/page/2>;
 * rel="next"}. Read leniently, as its appendix B.2 does: what cannot be read ends the reading and
 * takes nothing that was read before away.
 */
final class LinkHeader {

  private final String text;
  private int at;

  private LinkHeader(String text) {
    this.text = text;
  }

  /**
   * Where the first link with a relation leads.
   *
   * @param headers the values of all Link headers
   * @param base what a relative reference is relative to (RFC 3986 section 5, which {@link
   *     URI#resolve} does not follow for a reference that is a query alone)
   * @throws IllegalArgumentException if the link is no reference at all
   */
  static Optional<URI> find(List<String> headers, String relation, URI base) {
    for (String header : headers) {
      for (Link link : new LinkHeader(header).links()) {
        if (link.relations().contains(relation.toLowerCase(Locale.ROOT))) {
          return Optional.of(URIUtils.resolve(base, link.target()));
        }
      }
    }
    return Optional.empty();
  }

  private record Link(String target, List<String> relations) {}

  private List<Link> links() {
    List<Link> links = new ArrayList<>();
    while (true) {
      skip(" \t,");
      if (!taken('<')) {
        return links;
      }
      int end = text.indexOf('>', at);
      if (end < 0) {
        return links;
      }
      String target = text.substring(at, end);
      at = end + 1;
      links.add(new Link(target, relations()));
    }
  }

  /** The values of the first parameter {@code rel}; later ones do not count (section 3.3). */
  private List<String> relations() {
    List<String> relations = null;
    while (true) {
      skip(" \t");
      if (!taken(';')) {
        return relations == null ? List.of() : relations;
      }
      skip(" \t");
      String name = until("=;, \t").toLowerCase(Locale.ROOT);
      skip(" \t");
      String value = "";
      if (taken('=')) {
        skip(" \t");
        value = taken('"') ? quoted() : until(";, \t");
      }
      if (name.equals("rel") && relations == null) {
        relations = List.of(value.toLowerCase(Locale.ROOT).trim().split("\\s+"));
      }
    }
  }

  /** A quoted string (RFC 9110 section 5.6.4); the opening quote is read already. */
  private String quoted() {
    StringBuilder value = new StringBuilder();
    while (at < text.length() && text.charAt(at) != '"') {
      if (text.charAt(at) == '\\' && at + 1 < text.length()) {
        at++;
      }
      value.append(text.charAt(at++));
    }
    at = Math.min(text.length(), at + 1);
    return value.toString();
  }

  private void skip(String characters) {
    while (at < text.length() && characters.indexOf(text.charAt(at)) >= 0) {
      at++;
    }
  }

  private boolean taken(char expected) {
    if (at < text.length() && text.charAt(at) == expected) {
      at++;
      return true;
    }
    return false;
  }

  private String until(String ends) {
    int start = at;
    while (at < text.length() && ends.indexOf(text.charAt(at)) < 0) {
      at++;
    }
    return text.substring(start, at);
  }
}
