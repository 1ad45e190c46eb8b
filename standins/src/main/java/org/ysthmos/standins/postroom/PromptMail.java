package org.ysthmos.standins.postroom;

import com.icegreen.greenmail.Managers;
import com.icegreen.greenmail.imap.ImapHandler;
import com.icegreen.greenmail.server.AbstractServer;
import com.icegreen.greenmail.server.ProtocolHandler;
import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import java.io.UncheckedIOException;
import java.net.Socket;
import java.net.SocketException;
import java.util.Map;

/**
 * A mail server that sends each line at once. Otherwise the second line of an answer waits until
 * the first is acknowledged (RFC 9293 section 3.7.4), which takes 40 ms for every command.
 */
final class PromptMail extends GreenMail {

  private static final class Imap extends AbstractServer {

    Imap(ServerSetup setup, Managers managers) {
      super(setup, managers);
    }

    @Override
    protected ProtocolHandler createProtocolHandler(Socket client) {
      try {
        client.setTcpNoDelay(true);
      } catch (SocketException e) {
        throw new UncheckedIOException(e);
      }
      return new ImapHandler(managers.getUserManager(), managers.getImapHostManager(), client);
    }
  }

  PromptMail(int imapPort, int smtpPort) {
    super(
        new ServerSetup[] {
          new ServerSetup(imapPort, "127.0.0.1", ServerSetup.PROTOCOL_IMAP),
          new ServerSetup(smtpPort, "127.0.0.1", ServerSetup.PROTOCOL_SMTP)
        });
  }

  @Override
  protected Map<String, AbstractServer> createServices(ServerSetup[] setups, Managers managers) {
    Map<String, AbstractServer> services = super.createServices(setups, managers);
    services.replaceAll(
        (protocol, server) ->
            protocol.equals(ServerSetup.PROTOCOL_IMAP)
                ? new Imap(server.getServerSetup(), managers)
                : server);
    return services;
  }

  /** The server for reading; {@link #getImap()} knows only the one that is not prompt. */
  AbstractServer imap() {
    AbstractServer server = services.get(ServerSetup.PROTOCOL_IMAP);
    if (server == null) {
      throw new IllegalStateException("the mail server has no IMAP");
    }
    return server;
  }
}
