package org.ysthmos.standins.groundsboard;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.hook.HookSender;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Reply;
import org.ysthmos.standins.http.Request;
import org.ysthmos.standins.http.Routes;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.http.StandInServer;
import org.ysthmos.standins.store.RecordLog;

/**
 * The grounds crew's task system. Start and due are instants in UTC; people are ids; notes and
 * checklist go by a second call; the caller's id of a task is kept and can be searched for.
 */
public final class GroundsBoard implements StandIn {

  /** The most open tasks one account may have. */
  static final int MOST_OPEN = 5000;

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final int FIRST_NUMBER = 77101;
  private static final int PAGE = 50;

  private final BoardList boards;
  private final RecordLog tasks;
  private final RecordLog laneNames;
  private final RecordLog hooks;
  private final HookSender sender;
  private final ControlledClock clock;
  private final CallLimit limit;
  private final StandInServer server;
  private volatile Optional<BoardHooks> told = Optional.empty();

  /** Where boards tell of their tasks, each below its own name. */
  private record BoardHooks(String address, String secret) {}

  /**
   * @throws IOException if the port cannot be opened
   */
  public GroundsBoard(int port, String token, Path data, ControlledClock clock) throws IOException {
    this.boards = new BoardList(data);
    this.tasks = new RecordLog(data.resolve("grounds-board.ndjson"));
    this.hooks = new RecordLog(data.resolve("grounds-board-hooks.ndjson"));
    this.laneNames = new RecordLog(data.resolve("grounds-board-lanes.ndjson"));
    this.clock = clock;
    this.limit = new CallLimit(clock);
    this.sender = new HookSender(clock);
    Routes routes = new Routes();
    routes.open("GET", "/", request -> Reply.seeOther("/boards/paths-and-trees"));
    routes.open("POST", "/boards", this::make);
    routes.open("GET", "/boards/{board}", this::page);
    routes.open("POST", "/boards/{board}/tasks/{id}/tick", this::tick);
    routes.open("POST", "/boards/{board}/tasks/{id}/lane", this::putInLane);
    routes.open("POST", "/boards/{board}/tasks/{id}/title", this::retitle);
    routes.open("POST", "/boards/{board}/lanes/{lane}", this::rename);
    api(routes, "GET", "/api/boards", request -> boards());
    api(
        routes,
        "GET",
        "/api/boards/{board}",
        request -> Reply.json(200, JSON.valueToTree(named(board(request)))));
    api(routes, "GET", "/api/people", request -> people());
    api(routes, "GET", "/api/account", request -> account());
    api(routes, "GET", "/api/boards/{board}/tasks", this::search);
    api(routes, "POST", "/api/boards/{board}/tasks", this::create);
    api(routes, "GET", "/api/tasks/{id}", request -> Reply.json(200, find(request)));
    api(routes, "PATCH", "/api/tasks/{id}", this::change);
    api(routes, "PUT", "/api/tasks/{id}/details", this::details);
    api(routes, "DELETE", "/api/tasks/{id}", this::remove);
    api(routes, "POST", "/api/hooks", this::addHook);
    this.server =
        new StandInServer(
            port, token, StandInServer.resource("/openapi/grounds-board.json"), clock, routes);
    server.tellsBy(sender);
    server.alsoSwitches("runaway", "A task that may run away: on the North yard", this::runaway);
  }

  /**
   * Lets the boards that tell of their tasks do so.
   *
   * @param address below which each of them is told of under its id
   */
  public void tellsOfTasks(URI address, String secret) {
    told = Optional.of(new BoardHooks(address.toString(), secret));
  }

  private void runaway() {
    ObjectNode task = JSON.createObjectNode();
    synchronized (this) {
      task.put("id", "gb-" + (FIRST_NUMBER + tasks.everKept()));
      task.put("board", "yard-north").put("done", false).put("revision", 0);
      task.put("title", "Count the wheelbarrows").put("lane", "to-do");
      keep(task);
    }
    announce(task, "task.created");
  }

  private void api(Routes routes, String method, String path, Routes.Handler handler) {
    routes.signedIn(
        method,
        path,
        request -> {
          limit.take();
          return handler.answer(request);
        });
  }

  @Override
  public GroundsBoard start() {
    server.start();
    return this;
  }

  /** Begins its count of calls anew, for tests that make more than a person would. */
  public void forgetCalls() {
    limit.forget();
  }

  @Override
  public int port() {
    return server.port();
  }

  private Board board(Request request) {
    String id = request.slot("board");
    return boards.find(id).orElseThrow(() -> new Refusal(404, "there is no board “" + id + "”"));
  }

  private synchronized ObjectNode find(Request request) {
    String id = request.slot("id");
    return tasks.get(id).orElseThrow(() -> new Refusal(404, "there is no task “" + id + "”"));
  }

  private synchronized List<ObjectNode> tasksOf(Board board) {
    return tasks.all().stream()
        .filter(task -> task.path("board").asText().equals(board.id()))
        .toList();
  }

  private Reply boards() {
    List<Board> all = boards.all().stream().map(this::named).toList();
    return Reply.json(200, JSON.createObjectNode().set("items", JSON.valueToTree(all)));
  }

  /** Somebody makes a board on the page. */
  private Reply make(Request request) {
    Board board = boards.make(request.form().getOrDefault("name", ""));
    return Reply.seeOther("/boards/" + board.id());
  }

  /** A board with its lanes as they are called now. */
  private synchronized Board named(Board board) {
    return new Board(
        board.id(),
        board.name(),
        board.lanes().stream()
            .map(
                lane ->
                    laneNames
                        .get(board.id() + "/" + lane.id())
                        .map(kept -> new Board.Lane(lane.id(), kept.path("name").asText()))
                        .orElse(lane))
            .toList());
  }

  /** Somebody calls a lane something else; its id stays. */
  private synchronized Reply rename(Request request) {
    Board board = board(request);
    String lane = request.slot("lane");
    String name = request.form().getOrDefault("name", "").strip();
    if (!board.hasLane(lane) || name.isEmpty()) {
      throw Refusal.ofField("name", "a lane of the board has a name");
    }
    laneNames.keep(JSON.createObjectNode().put("id", board.id() + "/" + lane).put("name", name));
    return Reply.seeOther("/boards/" + board.id());
  }

  private Reply people() {
    return Reply.json(200, JSON.createObjectNode().set("items", JSON.valueToTree(Board.PEOPLE)));
  }

  private Reply search(Request request) {
    int from = request.query("from").map(Integer::parseInt).orElse(0);
    List<ObjectNode> found =
        tasksOf(board(request)).stream()
            .filter(
                task ->
                    request.query("externalId").stream()
                        .allMatch(id -> id.equals(task.path("externalId").asText())))
            .filter(
                task ->
                    request.query("changedSince").stream()
                        .allMatch(since -> task.path("changedAt").asText().compareTo(since) > 0))
            .filter(
                task ->
                    request.query("done").stream()
                        .allMatch(done -> done.equals(task.path("done").asText())))
            .toList();
    ArrayNode items = JSON.createArrayNode();
    found.stream().skip(from).limit(PAGE).forEach(items::add);
    ObjectNode body = JSON.createObjectNode();
    body.set("items", items);
    if (found.size() > from + PAGE) {
      body.put("next", from + PAGE);
    }
    return Reply.json(200, body);
  }

  private synchronized long openTasks() {
    return tasks.all().stream().filter(task -> !task.path("done").asBoolean()).count();
  }

  private Reply account() {
    ObjectNode account = JSON.createObjectNode().put("openTasks", openTasks());
    return Reply.json(200, account.put("mostOpenTasks", MOST_OPEN));
  }

  private Reply create(Request request) {
    Board board = board(request);
    ObjectNode task = JSON.createObjectNode();
    synchronized (this) {
      if (openTasks() >= MOST_OPEN) {
        throw Refusal.quotaFull("this account has its " + MOST_OPEN + " open tasks");
      }
      task.put("id", "gb-" + (FIRST_NUMBER + tasks.everKept()));
      task.put("board", board.id()).put("done", false).put("revision", 0);
      TaskRules.apply(board, request.json(), task);
      keep(task);
    }
    announce(task, "task.created");
    return Reply.json(201, task);
  }

  private Reply change(Request request) {
    ObjectNode task;
    synchronized (this) {
      task = find(request).deepCopy();
      TaskRules.apply(boards.find(task.path("board").asText()).orElseThrow(), request.json(), task);
      keep(task);
    }
    announce(task, "task.changed");
    return Reply.json(200, task);
  }

  private Reply details(Request request) {
    JsonNode wish = request.json();
    ObjectNode task;
    synchronized (this) {
      task = find(request).deepCopy();
      if (wish.has("notes")) {
        task.set("notes", wish.get("notes"));
      }
      if (wish.has("checklist")) {
        if (!wish.get("checklist").isArray() && !wish.get("checklist").isNull()) {
          throw Refusal.ofField("checklist", "a checklist is a list of texts");
        }
        task.set("checklist", wish.get("checklist"));
      }
      keep(task);
    }
    announce(task, "task.changed");
    return Reply.json(200, task);
  }

  private Reply remove(Request request) {
    ObjectNode task;
    synchronized (this) {
      task = find(request);
      tasks.remove(task.path("id").asText());
    }
    announce(task, "task.removed");
    return Reply.empty();
  }

  private synchronized void keep(ObjectNode task) {
    String now = clock.instant().toString();
    if (!task.has("createdAt")) {
      task.put("createdAt", now);
    }
    task.put("changedAt", now).put("revision", task.path("revision").asInt() + 1);
    tasks.keep(task);
  }

  private Reply addHook(Request request) {
    JsonNode wish = request.json();
    ObjectNode hook = JSON.createObjectNode().put("id", UUID.randomUUID().toString());
    hook.put("address", wish.path("address").asText());
    hook.put("secret", wish.path("secret").asText());
    synchronized (this) {
      hooks.keep(hook);
    }
    return Reply.json(201, JSON.createObjectNode().put("id", hook.path("id").asText()));
  }

  private void announce(ObjectNode task, String type) {
    ObjectNode body = JSON.createObjectNode().put("type", type);
    body.put("board", task.path("board").asText());
    body.set("task", task);
    List<ObjectNode> to;
    synchronized (this) {
      to = hooks.all();
    }
    String board = task.path("board").asText();
    told.filter(any -> boards.find(board).filter(Board::tells).isPresent())
        .ifPresent(
            at ->
                sender.send(
                    URI.create(at.address() + "/" + board),
                    at.secret(),
                    "msg_" + UUID.randomUUID(),
                    body.toString()));
    for (ObjectNode hook : to) {
      sender.send(
          URI.create(hook.path("address").asText()),
          hook.path("secret").asText(),
          "msg_" + UUID.randomUUID(),
          body.toString());
    }
  }

  private Reply page(Request request) {
    Board board = board(request);
    return Reply.html(GroundsBoardPage.of(named(board), tasksOf(board)));
  }

  private Reply tick(Request request) {
    ObjectNode task;
    synchronized (this) {
      task = find(request).deepCopy();
      task.put("done", !task.path("done").asBoolean());
      List<Board.Lane> lanes = board(request).lanes();
      task.put("lane", (task.path("done").asBoolean() ? lanes.getLast() : lanes.getFirst()).id());
      keep(task);
    }
    announce(task, "task.changed");
    return Reply.seeOther("/boards/" + board(request).id());
  }

  private Reply putInLane(Request request) {
    return byHand(request, "lane", request.form().getOrDefault("lane", ""));
  }

  private Reply retitle(Request request) {
    return byHand(request, "title", request.form().getOrDefault("title", "").strip());
  }

  /** Somebody changes a field of a task on the page. */
  private Reply byHand(Request request, String field, String value) {
    ObjectNode task;
    synchronized (this) {
      task = find(request).deepCopy();
      TaskRules.apply(board(request), JSON.createObjectNode().put(field, value), task);
      keep(task);
    }
    announce(task, "task.changed");
    return Reply.seeOther("/boards/" + board(request).id());
  }

  @Override
  public void close() {
    server.close();
    sender.close();
  }
}
