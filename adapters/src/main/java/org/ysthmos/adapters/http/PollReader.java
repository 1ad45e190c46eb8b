package org.ysthmos.adapters.http;

import java.util.Optional;
import org.ysthmos.adapters.http.HttpCollection.Paging;
import org.ysthmos.adapters.http.HttpCollection.Poll;
import org.ysthmos.adapters.http.HttpCollection.Since;
import org.ysthmos.adapters.system.Parts;
import org.ysthmos.adapters.system.PollSpec;
import org.ysthmos.core.document.DocumentNode;

/** Reads how a collection is asked for changes. */
final class PollReader {

  private PollReader() {}

  static Poll read(DocumentNode node) {
    node.only("call", "items", "id", "version", "changed", "created", "since", "next", "every");
    Poll poll =
        new Poll(
            HttpReader.call(node.need("call")),
            Parts.pointer(node.need("items")),
            Parts.pointer(node.need("id")),
            Parts.pointer(node.need("version")),
            node.get("changed").map(Parts::pointer),
            node.get("created").map(Parts::pointer),
            node.get("since").map(PollReader::since),
            node.get("next").map(PollReader::paging).orElse(new Paging.Whole()),
            node.get("every").map(Parts::duration).orElse(PollSpec.USUAL_INTERVAL));
    node.get("since")
        .filter(since -> poll.changed().isEmpty() && poll.since().get().cursor().isEmpty())
        .ifPresent(
            since -> {
              throw since.refuse(
                  "say where “changed” stands, whose newest is sent, or where the “cursor” stands");
            });
    return poll;
  }

  private static Since since(DocumentNode node) {
    node.only("parameter", "cursor");
    return new Since(node.need("parameter").text(), node.get("cursor").map(Parts::pointer));
  }

  /** How one page leads to the next. */
  static Paging paging(DocumentNode node) {
    node.only("link", "cursor", "parameter", "page-number");
    Optional<DocumentNode> link = node.get("link");
    if (link.isPresent()) {
      return new Paging.ByLink(link.get().text());
    }
    Optional<DocumentNode> number = node.get("page-number");
    if (number.isPresent()) {
      return new Paging.ByNumber(number.get().text());
    }
    return new Paging.ByCursor(Parts.pointer(node.need("cursor")), node.need("parameter").text());
  }
}
