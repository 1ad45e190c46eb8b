package org.ysthmos.app.drop;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.Settings;
import org.ysthmos.app.poll.Polling;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;

/** Takes files for systems whose records come in files. */
@RestController
class DropController {

  private static final int LARGEST = 16 << 20;

  /**
   * A file that was moved there whole is at rest from the beginning, and nothing of it is to come.
   */
  private static final Duration LONG_AGO = Duration.ofMinutes(15);

  private final Systems systems;
  private final Settings settings;
  private final AppClock clock;
  private final Polling polling;

  DropController(Systems systems, Settings settings, AppClock clock, Polling polling) {
    this.systems = systems;
    this.settings = settings;
    this.clock = clock;
    this.polling = polling;
  }

  /** Puts a file into the folder of a system, in place of an earlier one of its name. */
  @PutMapping("/api/systems/{id}/files/{name}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void take(@PathVariable String id, @PathVariable String name, HttpServletRequest request)
      throws IOException {
    SystemDescription system =
        systems
            .find(id)
            .map(Systems.Connected::description)
            .filter(one -> "drop".equals(one.address().getScheme()))
            .orElseThrow(() -> ApiProblem.notFound("system that takes files", id));
    if (!name.matches("[\\p{L}\\p{N}][\\p{L}\\p{N} ._-]{0,120}")) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "The file has no usable name",
          "A name has letters, digits, spaces, full stops and hyphens, at most 121.");
    }
    Path folder = settings.drops().resolve(system.address().getSchemeSpecificPart());
    Files.createDirectories(folder);
    Path part = Files.createTempFile(folder, ".part-", "");
    try {
      try (InputStream in = request.getInputStream()) {
        byte[] bytes = in.readNBytes(LARGEST + 1);
        if (bytes.length > LARGEST) {
          throw new ApiProblem(
              HttpStatus.PAYLOAD_TOO_LARGE,
              "The file is too large",
              "A file may have at most " + LARGEST + " bytes. Part it and drop the parts.");
        }
        Files.write(part, bytes);
      }
      Files.setLastModifiedTime(part, FileTime.from(clock.instant().minus(LONG_AGO)));
      Files.move(
          part,
          folder.resolve(name),
          StandardCopyOption.REPLACE_EXISTING,
          StandardCopyOption.ATOMIC_MOVE);
    } finally {
      Files.deleteIfExists(part);
    }
    system.collections().keySet().forEach(collection -> polling.now(id, collection));
  }
}
