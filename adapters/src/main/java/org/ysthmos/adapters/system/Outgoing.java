package org.ysthmos.adapters.system;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.List;
import java.util.Locale;

/**
 * Which hosts may be called. Addresses that no system has, such as those of the link itself (RFC
 * 3927, RFC 4291 section 2.5.6), where machines in data centres keep their keys, are never called.
 *
 * @param only the hosts that may be called, in lower case; one that begins with {@code *.} stands
 *     for all below it; empty for all
 * @param toPrivate whether addresses of this machine and of private networks (RFC 1918, RFC 4193)
 *     may be called
 */
public record Outgoing(List<String> only, boolean toPrivate) {

  /** The default: every host but those that no system has. */
  public static final Outgoing ANYWHERE = new Outgoing(List.of(), true);

  public Outgoing {
    only = only.stream().map(host -> host.toLowerCase(Locale.ROOT)).toList();
  }

  /** An address that may not be called; nothing was sent. */
  public static final class Refused extends UnknownHostException {
    Refused(String why) {
      super(why);
    }
  }

  /**
   * Resolves a host and gives its addresses.
   *
   * @throws Refused if it may not be called
   * @throws UnknownHostException if nobody knows it
   */
  public InetAddress[] resolve(String host) throws UnknownHostException {
    String name = host.toLowerCase(Locale.ROOT);
    if (!only.isEmpty() && only.stream().noneMatch(allowed -> fits(allowed, name))) {
      throw new Refused(host + " is not among the hosts that may be called");
    }
    InetAddress[] addresses = InetAddress.getAllByName(host);
    for (InetAddress address : addresses) {
      check(host, address);
    }
    return addresses;
  }

  private static boolean fits(String allowed, String name) {
    return allowed.startsWith("*.") ? name.endsWith(allowed.substring(1)) : name.equals(allowed);
  }

  private void check(String host, InetAddress address) throws Refused {
    if (address.isLinkLocalAddress()
        || address.isMulticastAddress()
        || address.isAnyLocalAddress()) {
      throw new Refused(
          host + " has the address " + address.getHostAddress() + ", which is none of a system");
    }
    if (!toPrivate
        && (address.isLoopbackAddress()
            || address.isSiteLocalAddress()
            || isUniqueLocal(address))) {
      throw new Refused(
          host
              + " has the private address "
              + address.getHostAddress()
              + ", which may not be called");
    }
  }

  /** RFC 4193 section 3.1: {@code fc00::/7}. */
  private static boolean isUniqueLocal(InetAddress address) {
    byte[] bytes = address.getAddress();
    return bytes.length == 16 && (bytes[0] & 0xfe) == 0xfc;
  }
}
