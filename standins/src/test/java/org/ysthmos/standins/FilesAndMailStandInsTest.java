package org.ysthmos.standins;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import jakarta.mail.Flags;
import jakarta.mail.Folder;
import jakarta.mail.Message;
import jakarta.mail.Session;
import jakarta.mail.Store;
import jakarta.mail.UIDFolder;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Base64;
import java.util.Map;
import java.util.Properties;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.standins.choretable.ChoreTable;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.leaflibrary.LeafLibrary;
import org.ysthmos.standins.postroom.PostRoom;

/** The sheets, the library and the post room. */
class FilesAndMailStandInsTest {

  private static final String FOLDER = "Primary schools";

  @TempDir Path data;
  private ChoreTable chores;
  private LeafLibrary library;
  private PostRoom room;

  @BeforeEach
  void start() throws Exception {
    ControlledClock clock = new ControlledClock();
    chores = new ChoreTable(0, "chores", data, clock).start();
    library = new LeafLibrary(0, "leaf", data, clock).start();
    room = new PostRoom(0, 0, 0, "post", data, clock).start();
  }

  @AfterEach
  void stop() {
    chores.close();
    library.close();
    room.close();
  }

  private HttpResponse<String> sheet(String method, String path, String body) throws Exception {
    return Bench.call(chores, "chores", method, "/api/sheets/rounds" + path, body);
  }

  /** RFC 4180: what goes in quoted comes out the same. */
  @Test
  void sheetComesAndGoesAsCsv() throws Exception {
    String csv =
        "round,place,every,first,lead,lastDone,crew,note,lastDue,nextDue,job\r\n"
            + "Water,\"Fern house, left\",monday,,,,Glass crew,\"say \"\"hello\"\"\r\nto all\",,,\r\n";
    assertThat(Bench.json(sheet("POST", "/csv", csv)).path("added").asInt()).isEqualTo(1);
    assertThat(sheet("GET", "/csv", "").body()).isEqualTo(csv);
    assertThat(sheet("POST", "/csv", "a,b\r\n1,2\r\n").statusCode()).isEqualTo(422);
  }

  @Test
  void rowsComeInNumberedPagesUntilOneIsEmpty() throws Exception {
    for (int i = 0; i < 26; i++) {
      sheet("POST", "/rows", "{\"round\":\"R" + i + "\"}");
    }
    assertThat(Bench.json(sheet("GET", "/rows?page=1", "")).path("rows")).hasSize(25);
    assertThat(Bench.json(sheet("GET", "/rows?page=2", "")).path("rows")).hasSize(1);
    assertThat(Bench.json(sheet("GET", "/rows?page=3", "")).path("rows")).isEmpty();
    assertThat(sheet("GET", "/rows?page=x", "").statusCode()).isEqualTo(400);
  }

  @Test
  void cellIsWrittenBackAndTheRowCountsItsEdits() throws Exception {
    JsonNode row = Bench.json(sheet("POST", "/rows", "{\"round\":\"Water\"}"));
    String path = "/rows/" + row.path("id").asText();
    JsonNode written = Bench.json(sheet("PATCH", path, "{\"lastDone\":\"24 November 2026\"}"));
    assertThat(written.at("/cells/lastDone").asText()).isEqualTo("24 November 2026");
    assertThat(written.path("edit").asInt()).isEqualTo(row.path("edit").asInt() + 1);
    assertThat(sheet("PATCH", path, "{\"colour\":\"red\"}").statusCode()).isEqualTo(422);
    assertThat(sheet("DELETE", path, "").statusCode()).isEqualTo(204);
    assertThat(sheet("GET", path, "").statusCode()).isEqualTo(404);
    String other = "/api/sheets/exhibitions/rows/" + row.path("id").asText();
    assertThat(Bench.call(chores, "chores", "GET", other, "").statusCode()).isEqualTo(404);
  }

  private HttpResponse<String> dav(String method, String path, String password, String body)
      throws Exception {
    String both =
        Base64.getEncoder()
            .encodeToString(("library:" + password).getBytes(StandardCharsets.UTF_8));
    return Bench.call(
        library,
        method,
        "/dav" + path,
        Map.of("Authorization", "Basic " + both, "Depth", "1"),
        body);
  }

  /** RFC 4918 section 9.1: with Depth 1 a folder lists itself and its members. */
  @Test
  void libraryListsItsFoldersWithTagsAndPropertiesAndARevisionChangesTheTag() throws Exception {
    Bench.form(
        library,
        "/documents",
        Map.of("path", "records/ferns/Blechnum spicant.txt", "kind", "plant record", "text", "x"));
    HttpResponse<String> top = dav("PROPFIND", "/records/", "leaf", "");
    assertThat(top.statusCode()).isEqualTo(207);
    assertThat(top.body())
        .contains("<D:href>/dav/records/</D:href>", "<D:href>/dav/records/ferns/</D:href>")
        .doesNotContain("Blechnum");
    String ferns = dav("PROPFIND", "/records/ferns/", "leaf", "").body();
    assertThat(ferns).contains("/dav/records/ferns/Blechnum%20spicant.txt", ">plant record</kind>");
    dav("PUT", "/records/ferns/Blechnum%20spicant.txt", "leaf", "revised");
    String after = dav("PROPFIND", "/records/ferns/", "leaf", "").body();
    assertThat(tag(after)).isNotEqualTo(tag(ferns));
    assertThat(dav("GET", "/records/ferns/Blechnum%20spicant.txt", "leaf", "").body())
        .isEqualTo("revised");
  }

  private static String tag(String multistatus) {
    return multistatus.replaceAll("(?s).*<D:getetag>([^<]*)<.*", "$1");
  }

  @Test
  void libraryAsksForItsPasswordAndKnowsWhatItDoesNotHave() throws Exception {
    assertThat(dav("PROPFIND", "/records/", "wrong", "").statusCode()).isEqualTo(401);
    assertThat(dav("PROPFIND", "/records/", "leaf", "").statusCode()).isEqualTo(207);
    assertThat(dav("PROPFIND", "/elsewhere/", "leaf", "").statusCode()).isEqualTo(404);
    assertThat(dav("GET", "/records/none.txt", "leaf", "").statusCode()).isEqualTo(404);
  }

  private Store signIn(String password) throws Exception {
    Store store = Session.getInstance(new Properties()).getStore("imap");
    store.connect("127.0.0.1", room.imapPort(), "school-visits", password);
    return store;
  }

  private String write(boolean flagged) throws Exception {
    return Bench.form(
        room,
        "/mails",
        Map.of(
            "folder", FOLDER,
            "name", "João",
            "from", "joao@school.example",
            "subject", "Março",
            "text", "Somos trinta",
            "flagged", flagged ? "yes" : "",
            "list", "name\nAna"));
  }

  @Test
  void mailIsReadByAMailProgramAsItWasWritten() throws Exception {
    String id = write(true);
    try (Store store = signIn("post");
        Folder folder = store.getFolder(FOLDER)) {
      folder.open(Folder.READ_ONLY);
      Message mail = folder.getMessage(1);
      assertThat(mail.getHeader("Message-ID")).containsExactly("<" + id + ">");
      assertThat(mail.getSubject()).isEqualTo("Março");
      assertThat(mail.isSet(Flags.Flag.FLAGGED)).isTrue();
      assertThat(mail.getContentType()).startsWith("multipart/mixed");
    }
  }

  @Test
  void mailsAndTheirFlagsAreThereAgainAfterARestart() throws Exception {
    String id = write(false);
    Bench.form(room, "/flags", Map.of("folder", FOLDER, "id", id, "on", "yes"));
    room.close();
    room = new PostRoom(0, 0, 0, "post", data, new ControlledClock()).start();
    try (Store store = signIn("post");
        Folder folder = store.getFolder(FOLDER)) {
      folder.open(Folder.READ_ONLY);
      assertThat(folder.getMessageCount()).isEqualTo(1);
      assertThat(folder.getMessage(1).getHeader("Message-ID")).containsExactly("<" + id + ">");
      assertThat(folder.getMessage(1).isSet(Flags.Flag.FLAGGED)).isTrue();
    }
    var nothing = Map.of("folder", FOLDER, "id", "no-such-mail");
    assertThat(Bench.form(room, "/flags", nothing)).contains("there is no mail");
  }

  @Test
  void foldersThatAreMadeAnewHoldTheSameMailsUnderAnotherValidity() throws Exception {
    write(true);
    try (Store store = signIn("post")) {
      long before = ((UIDFolder) store.getFolder(FOLDER)).getUIDValidity();
      long after = before;
      // It counts in seconds there.
      while (after == before) {
        Bench.call(room, "POST", "/control/faults", Map.of(), "{\"kind\":\"uids-renewed\"}");
        after = ((UIDFolder) store.getFolder(FOLDER)).getUIDValidity();
      }
      Folder folder = store.getFolder(FOLDER);
      folder.open(Folder.READ_ONLY);
      assertThat(folder.getMessageCount()).isEqualTo(1);
      assertThat(folder.getMessage(1).isSet(Flags.Flag.FLAGGED)).isTrue();
    }
  }

  @Test
  void passwordIsRefusedWhileItsFaultIsOn() throws Exception {
    Bench.call(room, "POST", "/control/faults", Map.of(), "{\"kind\":\"token-expired\"}");
    org.assertj.core.api.Assertions.assertThatThrownBy(() -> signIn("post"))
        .isInstanceOf(jakarta.mail.AuthenticationFailedException.class);
    JsonNode on = Bench.json(Bench.call(room, "GET", "/control/faults", Map.of(), ""));
    assertThat(on.at("/on/0/kind").asText()).isEqualTo("token-expired");
    Bench.call(room, "DELETE", "/control/faults", Map.of(), "");
    signIn("post").close();
    assertThat(
            Bench.call(room, "POST", "/control/faults", Map.of(), "{\"kind\":\"rain\"}")
                .statusCode())
        .isEqualTo(422);
  }
}
