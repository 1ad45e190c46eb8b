package org.ysthmos.app.installation;

import java.util.Map;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What describes this installation as documents, for a folder that is kept elsewhere. */
@RestController
@RequestMapping(path = "/api/installation", produces = MediaType.APPLICATION_JSON_VALUE)
class InstallationController {

  /**
   * Documents that describe an installation.
   *
   * @param documents path to text, for example {@code bridges/hazard-to-grounds.yaml}
   */
  record Folder(Map<String, String> documents) {}

  /**
   * What is to be applied.
   *
   * @param plan the id of the plan that was seen
   */
  record ApplyWish(Map<String, String> documents, String plan) {}

  private final Installation installation;

  InstallationController(Installation installation) {
    this.installation = installation;
  }

  /** The documents that describe it; no secret is among them. */
  @GetMapping
  Folder documents() {
    return new Folder(installation.documents());
  }

  /** What applying a folder would do. Nothing is done. */
  @PostMapping("/plan")
  Plan plan(@RequestBody Folder folder) {
    return installation.plan(folder.documents());
  }

  /** Does what a plan says, all of it or nothing. */
  @PostMapping("/apply")
  Plan apply(@RequestBody ApplyWish wish) {
    return installation.apply(wish.documents(), wish.plan());
  }
}
