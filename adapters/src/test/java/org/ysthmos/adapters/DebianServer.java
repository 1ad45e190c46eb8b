package org.ysthmos.adapters;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.junit.jupiter.api.Assumptions;

/** A real server of the distribution, started on loopback with a configuration of its own. */
public final class DebianServer implements AutoCloseable {

  private static final AtomicInteger NEXT =
      new AtomicInteger(28000 + (int) (ProcessHandle.current().pid() % 350) * 10);

  private static final Duration LONGEST_START = Duration.ofSeconds(20);

  private final Process process;

  private DebianServer(Process process) {
    this.process = process;
  }

  public static int freePort() {
    // Below the range from which the system takes ports for connections, so that none is taken
    // between the choice and its use.
    for (int port = NEXT.getAndIncrement(); port < 32_000; port = NEXT.getAndIncrement()) {
      try (ServerSocket socket = new ServerSocket(port, 1, InetAddress.getLoopbackAddress())) {
        return socket.getLocalPort();
      } catch (IOException taken) {
        // The next one, then.
        continue;
      }
    }
    throw new IllegalStateException("no port is free");
  }

  /** Skips the test, and says so loudly, where the program is not installed. */
  public static Path need(String program) {
    return Stream.of("/usr/sbin/", "/usr/bin/")
        .map(folder -> Path.of(folder + program))
        .filter(Files::isExecutable)
        .findFirst()
        .orElseGet(
            () -> {
              String missing =
                  "SKIPPED: "
                      + program
                      + " is not installed (Debian: apt-get install "
                      + program
                      + ")";
              System.err.println("\n*** " + missing + " ***\n");
              Assumptions.abort(missing);
              throw new IllegalStateException(missing);
            });
  }

  public static DebianServer start(int port, Path log, List<String> command) throws Exception {
    Process process =
        new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(log.toFile()).start();
    long until = System.nanoTime() + LONGEST_START.toNanos();
    while (System.nanoTime() < until) {
      try (Socket socket = new Socket()) {
        socket.connect(new InetSocketAddress("127.0.0.1", port), 200);
        return new DebianServer(process);
      } catch (IOException notYet) {
        if (process.waitFor(50, TimeUnit.MILLISECONDS)) {
          throw new IllegalStateException(command + " ended: " + Files.readString(log));
        }
      }
    }
    process.destroyForcibly();
    throw new IllegalStateException(command + " does not answer: " + Files.readString(log));
  }

  @Override
  public void close() throws InterruptedException {
    process.destroy();
    if (!process.waitFor(5, TimeUnit.SECONDS)) {
      process.destroyForcibly();
    }
  }
}
