package org.ysthmos.standins.groundsboard;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.store.RecordLog;

/** The boards: those that were always there, and those that somebody made. */
final class BoardList {

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final RecordLog made;

  BoardList(Path data) {
    this.made = new RecordLog(data.resolve("grounds-board-made.ndjson"));
  }

  synchronized List<Board> all() {
    return Stream.concat(
            Board.ALL.stream(),
            made.all().stream()
                .map(one -> Board.plain(one.path("id").asText(), one.path("name").asText())))
        .toList();
  }

  Optional<Board> find(String id) {
    return all().stream().filter(board -> board.id().equals(id)).findFirst();
  }

  /** Somebody makes a board with two lanes. */
  synchronized Board make(String name) {
    String id = name.strip().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
    if (id.isEmpty() || find(id).isPresent()) {
      throw Refusal.ofField("name", "a board has a name of its own");
    }
    ObjectNode board = JSON.createObjectNode().put("id", id).put("name", name.strip());
    made.keep(board);
    return Board.plain(id, name.strip());
  }
}
