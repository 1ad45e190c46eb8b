package org.ysthmos.core.value;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.Locale;
import java.util.Set;

/** An absolute URI with a label; the label is the address itself where none was given. */
public record Link(URI address, String label) implements Value {

  /**
   * The schemes that a link may have without more being said. Others can make a program run on a
   * click, such as {@code javascript:}, or hold a whole page, such as {@code data:}.
   */
  public static final Set<String> USUAL_SCHEMES = Set.of("http", "https", "mailto", "tel");

  /**
   * @throws IllegalArgumentException if the address is not absolute
   */
  public Link {
    if (!address.isAbsolute()) {
      throw new IllegalArgumentException("a link needs an absolute address, found " + address);
    }
  }

  /**
   * A link of a stated scheme.
   *
   * @param more schemes beside the {@link #USUAL_SCHEMES}, in small letters
   * @throws IllegalArgumentException if it is no absolute address, or its scheme is another
   */
  public static Link of(String address, Set<String> more) {
    URI uri;
    try {
      uri = new URI(address);
    } catch (URISyntaxException notAnAddress) {
      throw new IllegalArgumentException("“" + address + "” is no absolute address", notAnAddress);
    }
    if (!uri.isAbsolute()) {
      throw new IllegalArgumentException("“" + address + "” is no absolute address");
    }
    String scheme = uri.getScheme().toLowerCase(Locale.ROOT);
    if (!USUAL_SCHEMES.contains(scheme) && !more.contains(scheme)) {
      throw new IllegalArgumentException(
          "“%s” is no link to follow: “%s:” is not among http, https, mailto, tel and what is stated"
              .formatted(address, scheme));
    }
    return new Link(uri, address);
  }

  public static Link of(String address) {
    return of(address, Set.of());
  }

  @Override
  public ValueType type() {
    return ValueType.LINK;
  }

  @Override
  public String display() {
    return address.toString();
  }
}
