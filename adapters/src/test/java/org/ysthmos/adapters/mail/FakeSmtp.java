package org.ysthmos.adapters.mail;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;

/** An SMTP server that takes everything but one command, at which it answers as it is told. */
final class FakeSmtp implements AutoCloseable {

  private final ServerSocket socket;
  private final String at;
  private final String reply;

  /**
   * @param at the command, or a full stop for the end of the text
   * @param reply what it answers there; empty to end the connection without an answer
   */
  FakeSmtp(String at, String reply) throws IOException {
    this.at = at;
    this.reply = reply;
    this.socket = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());
    Thread.ofPlatform().daemon().start(this::serve);
  }

  int port() {
    return socket.getLocalPort();
  }

  private void serve() {
    while (!socket.isClosed()) {
      try (Socket client = socket.accept()) {
        talk(client);
      } catch (IOException ended) {
        // The client went, or the test is over.
        continue;
      }
    }
  }

  private void talk(Socket client) throws IOException {
    BufferedReader in =
        new BufferedReader(
            new InputStreamReader(client.getInputStream(), StandardCharsets.US_ASCII));
    OutputStream out = client.getOutputStream();
    say(out, "220 here");
    boolean text = false;
    for (String line = in.readLine(); line != null; line = in.readLine()) {
      if (text && !line.equals(".")) {
        continue;
      }
      String command = text ? "." : line.split(" ", 2)[0].split(":", 2)[0];
      if (command.equals(at)) {
        if (reply.isEmpty()) {
          return;
        }
        say(out, reply);
        text = false;
        continue;
      }
      text = command.equals("DATA");
      say(
          out,
          switch (command) {
            case "EHLO" -> "250-here\r\n250 AUTH PLAIN";
            case "AUTH" -> "235 welcome";
            case "DATA" -> "354 go on";
            case "QUIT" -> "221 bye";
            default -> "250 well";
          });
    }
  }

  private static void say(OutputStream out, String line) throws IOException {
    out.write((line + "\r\n").getBytes(StandardCharsets.US_ASCII));
    out.flush();
  }

  @Override
  public void close() throws IOException {
    socket.close();
  }
}
