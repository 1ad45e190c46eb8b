package org.ysthmos.app;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.concurrent.atomic.AtomicInteger;
import org.ysthmos.standins.choretable.ChoreTable;
import org.ysthmos.standins.climatedesk.ClimateDesk;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.friendsregister.FriendsRegister;
import org.ysthmos.standins.gardenchat.GardenChat;
import org.ysthmos.standins.groundsboard.GroundsBoard;
import org.ysthmos.standins.leaflibrary.LeafLibrary;
import org.ysthmos.standins.postroom.PostRoom;
import org.ysthmos.standins.visitordesk.VisitorDesk;
import org.ysthmos.standins.worksledger.WorksLedger;

/** The systems that tests connect, each started once for all of them. */
abstract class StandInTestBase {

  private static final AtomicInteger NEXT =
      new AtomicInteger(24000 + (int) (ProcessHandle.current().pid() % 350) * 10);

  static final String SECRET =
      "whsec_"
          + Base64.getEncoder()
              .encodeToString("a secret of the tests".getBytes(StandardCharsets.UTF_8));
  static final String DESK_TOKEN = "desk-token";
  static final String BOARD_TOKEN = "board-token";

  static final int PORT = freePort();
  static final VisitorDesk DESK;
  static final GroundsBoard BOARD;
  static final FriendsRegister FRIENDS;
  static final PostRoom POST;
  static final WorksLedger LEDGER;
  static final ClimateDesk CLIMATE;
  static final GardenChat CHAT;
  static final ChoreTable CHORES;
  static final LeafLibrary LIBRARY;
  static final Path DATA;
  static final Path SETUP;

  static {
    try {
      DATA = Files.createTempDirectory("ysthmos-test");
      SETUP = RoomySetup.into(DATA.resolve("setup"));
      ControlledClock clock = new ControlledClock();
      URI hook = URI.create("http://127.0.0.1:" + PORT + "/hooks/visitor-desk/hazard-reports");
      DESK = new VisitorDesk(0, DESK_TOKEN, DATA.resolve("standins"), clock, hook, SECRET).start();
      BOARD = new GroundsBoard(0, BOARD_TOKEN, DATA.resolve("standins"), clock).start();
      BOARD.tellsOfTasks(URI.create("http://127.0.0.1:" + PORT + "/hooks/grounds-board"), SECRET);
      FRIENDS = new FriendsRegister(0, "friends", DATA.resolve("standins"), clock).start();
      POST = new PostRoom(0, 0, 0, "post", DATA.resolve("standins"), clock).start();
      Path kept = DATA.resolve("standins");
      LEDGER = new WorksLedger(0, "ledger", kept, clock).start();
      URI tickets = URI.create("http://127.0.0.1:" + PORT + "/hooks/climate-desk/tickets");
      CLIMATE = new ClimateDesk(0, "climate", kept, clock, tickets, "climate-hook").start();
      URI talk = URI.create("http://127.0.0.1:" + PORT + "/hooks/garden-chat");
      CHAT = new GardenChat(0, "chat", kept, clock, talk, "chat-hook").start();
      CHORES = new ChoreTable(0, "chores", kept, clock).start();
      LIBRARY = new LeafLibrary(0, "library", kept, clock).start();
      Files.writeString(
          DATA.resolve("connections.properties"),
          """
          visitor-desk.address=http://127.0.0.1:%d
          grounds-board.address=http://127.0.0.1:%d
          friends-register.address=http://127.0.0.1:%d
          works-ledger.address=http://127.0.0.1:%d
          works-ledger.practice-address=http://127.0.0.1:%d/control/faults
          climate-desk.address=http://127.0.0.1:%d
          garden-chat.address=http://127.0.0.1:%d
          chore-table.address=http://127.0.0.1:%d
          leaf-library.address=http://127.0.0.1:%d/dav
          secret.leaf-library-password=library
          secret.works-ledger-token=ledger
          secret.climate-desk-token=climate
          secret.climate-desk-hook=climate-hook
          secret.garden-chat-token=chat
          secret.garden-chat-hook=chat-hook
          secret.chore-table-token=chores
          post-room.address=imap://127.0.0.1:%d
          post-room.send-address=smtp://127.0.0.1:%d
          secret.post-room-password=post
          secret.friends-register-token=friends
          secret.visitor-desk-token=%s
          secret.grounds-board-token=%s
          grounds-board.practice-address=http://127.0.0.1:%d/control/faults
          secret.grounds-board-hook=%s
          secret.visitor-desk-hook=%s
          """
              .formatted(
                  DESK.port(),
                  BOARD.port(),
                  FRIENDS.port(),
                  LEDGER.port(),
                  LEDGER.port(),
                  CLIMATE.port(),
                  CHAT.port(),
                  CHORES.port(),
                  LIBRARY.port(),
                  POST.imapPort(),
                  POST.smtpPort(),
                  DESK_TOKEN,
                  BOARD_TOKEN,
                  BOARD.port(),
                  SECRET,
                  SECRET));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static int freePort() {
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
}
