package org.ysthmos.adapters.mail;

import java.net.URI;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.gateway.SystemGateway;

/**
 * A mail account.
 *
 * @param sendAddress where letters are handed in; empty if none are
 */
record MailProtocol(Optional<URI> sendAddress) implements SystemDescription.Protocol {

  @Override
  public SystemGateway open(SystemDescription system, Surroundings surroundings) {
    return new MailSystem(
        system, new MailAccount(system, sendAddress, surroundings), surroundings.clock());
  }

  @Override
  public Map<String, String> connect(SystemDescription system, Surroundings surroundings) {
    return new MailAccount(system, sendAddress, surroundings).connect();
  }

  @Override
  public SystemDescription.Protocol at(String which, URI address) {
    return which.equals("send-address") ? new MailProtocol(Optional.of(address)) : this;
  }
}
