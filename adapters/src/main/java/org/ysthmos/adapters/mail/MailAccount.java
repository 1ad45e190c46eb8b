package org.ysthmos.adapters.mail;

import jakarta.mail.AuthenticationFailedException;
import jakarta.mail.MessagingException;
import jakarta.mail.Service;
import jakarta.mail.Session;
import jakarta.mail.Store;
import jakarta.mail.Transport;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.concurrent.ConcurrentHashMap;
import org.ysthmos.adapters.system.SignIn;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;

/**
 * Connections of one mail account. {@code imaps} and {@code smtps} speak TLS from the first byte
 * (RFC 8314 section 3); {@code imap} and {@code smtp} must change to it before anything is said
 * that matters, unless the server is this machine.
 */
final class MailAccount {

  static {
    Lenient.install();
  }

  private static final Session LOCAL = Session.getInstance(new Properties());

  private final SystemDescription system;
  private final Optional<URI> sendAddress;
  private final Surroundings surroundings;

  /** By address; to make one, everything on the classpath is searched for protocols. */
  private final Map<URI, Session> sessions = new ConcurrentHashMap<>();

  MailAccount(SystemDescription system, Optional<URI> sendAddress, Surroundings surroundings) {
    this.system = system;
    this.sendAddress = sendAddress;
    this.surroundings = surroundings;
  }

  URI readAddress() {
    return system.address();
  }

  Optional<URI> sendAddress() {
    return sendAddress;
  }

  /** A session for messages that are made or read without a server. */
  Session session() {
    return LOCAL;
  }

  /** Opens the account for reading. */
  Store read() throws MessagingException {
    URI address = system.address();
    Store store = session(address).getStore(address.getScheme());
    store.connect(address.getHost(), address.getPort(), user(), password());
    return store;
  }

  /** Opens the account for listening: a silent connection lasts until the server ends it. */
  Store listen() throws MessagingException {
    URI address = system.address();
    refuse(address);
    Properties properties = properties(address);
    // RFC 2177 has a client speak again within 29 minutes; a server that is silent so long is gone.
    properties.put("mail." + address.getScheme() + ".timeout", "1500000");
    Store store = Session.getInstance(properties).getStore(address.getScheme());
    store.connect(address.getHost(), address.getPort(), user(), password());
    return store;
  }

  /** Opens the account for sending. */
  Transport send(URI address) throws MessagingException {
    Transport transport = session(address).getTransport(address.getScheme());
    transport.connect(address.getHost(), address.getPort(), user(), password());
    return transport;
  }

  /** Connects to each address and signs in nowhere; gives why one could not be connected to. */
  Map<String, String> connect() {
    Map<String, String> problems = new LinkedHashMap<>();
    knock("address", readAddress(), problems);
    sendAddress.ifPresent(address -> knock("send-address", address, problems));
    return problems;
  }

  private void knock(String which, URI address, Map<String, String> problems) {
    try {
      Service service =
          which.equals("address")
              ? session(address).getStore(address.getScheme())
              : session(address).getTransport(address.getScheme());
      try (service) {
        service.connect(address.getHost(), address.getPort(), "nobody", "");
      }
    } catch (AuthenticationFailedException nobody) {
      // So it was connected to.
      return;
    } catch (MessagingException e) {
      problems.put(which, MailFailures.why(e));
    }
  }

  private Session session(URI address) throws MessagingException {
    refuse(address);
    return sessions.computeIfAbsent(address, at -> Session.getInstance(properties(at)));
  }

  private Properties properties(URI address) {
    String prefix = "mail." + address.getScheme() + ".";
    String timeout = Long.toString(system.timeout().toMillis());
    Properties properties = new Properties();
    properties.put(prefix + "connectiontimeout", timeout);
    properties.put(prefix + "timeout", timeout);
    properties.put(prefix + "writetimeout", timeout);
    properties.put(
        prefix + "ssl.checkserveridentity", Boolean.toString(system.trust().asksForTheName()));
    properties.put(prefix + "ssl.socketFactory", system.trust().context().getSocketFactory());
    properties.put(prefix + "starttls.enable", "true");
    properties.put(prefix + "starttls.required", Boolean.toString(!isThisMachine(address)));
    properties.put(prefix + "auth", "true");
    properties.put("mail.mime.decodefilename", "true");
    properties.put("mail.mime.allowutf8", "true");
    // A mail with a broken part is read as far as it goes.
    properties.put("mail.mime.multipart.allowempty", "true");
    return properties;
  }

  /** Sees that the server may be called at all, before anything is sent. */
  private void refuse(URI address) throws MessagingException {
    try {
      surroundings.outgoing().resolve(address.getHost());
    } catch (UnknownHostException e) {
      throw new MessagingException(e.getMessage(), e);
    }
  }

  private static boolean isThisMachine(URI address) {
    try {
      return InetAddress.getByName(address.getHost()).isLoopbackAddress();
    } catch (UnknownHostException e) {
      // It cannot be connected to either, and that failure names the host.
      return false;
    }
  }

  private String user() {
    return system
        .signIn()
        .map(how -> how instanceof SignIn.Basic basic ? basic.user() : "")
        .orElse("");
  }

  private String password() {
    return system.signIn().flatMap(how -> surroundings.secrets().apply(how.secret())).orElse("");
  }
}
