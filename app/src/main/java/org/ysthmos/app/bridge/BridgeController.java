package org.ysthmos.app.bridge;

import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.BridgeViews.BridgeSummary;
import org.ysthmos.app.bridge.BridgeViews.BridgeView;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.document.DocumentNode;

/** Reading bridges, and putting a document to work. */
@RestController
@RequestMapping(path = "/api/bridges", produces = MediaType.APPLICATION_JSON_VALUE)
class BridgeController {

  private final Bridges bridges;

  BridgeController(Bridges bridges) {
    this.bridges = bridges;
  }

  @GetMapping
  List<BridgeSummary> all() {
    return bridges.live().stream().map(BridgeViews::summary).toList();
  }

  @GetMapping("/{id}")
  BridgeView one(@PathVariable String id) {
    return bridges
        .live(id)
        .map(BridgeViews::view)
        .orElseThrow(() -> ApiProblem.notFound("live bridge", id));
  }

  @PutMapping(path = "/{id}/document", consumes = "application/yaml")
  BridgeView put(@PathVariable String id, @RequestBody String document) {
    String named = BridgeReader.read(DocumentNode.parse(document)).id();
    if (!named.equals(id)) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Another bridge",
          "The document is of the bridge “" + named + "”, the address of “" + id + "”.");
    }
    bridges.put(document);
    return one(id);
  }
}
