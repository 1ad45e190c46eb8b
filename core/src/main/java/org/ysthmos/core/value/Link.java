package org.ysthmos.core.value;

import java.net.URI;

/** An absolute URI with a label; the label is the address itself where none was given. */
public record Link(URI address, String label) implements Value {

  /**
   * @throws IllegalArgumentException if the address is not absolute
   */
  public Link {
    if (!address.isAbsolute()) {
      throw new IllegalArgumentException("a link needs an absolute address, found " + address);
    }
  }

  public static Link of(String address) {
    return new Link(URI.create(address), address);
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
