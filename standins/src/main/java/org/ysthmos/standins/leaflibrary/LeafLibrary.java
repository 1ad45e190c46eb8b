package org.ysthmos.standins.leaflibrary;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.http.Page;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Reply;
import org.ysthmos.standins.http.Request;
import org.ysthmos.standins.http.Routes;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.http.StandInServer;
import org.ysthmos.standins.store.RecordLog;

/**
 * Documents in folders. Whoever asks by WebDAV (RFC 4918, class 1 as far as reading goes) sees each
 * with its tag, when it was made and changed, and the library's own properties: its kind and
 * whether it is approved. A person adds and revises documents on a page.
 */
public final class LeafLibrary implements StandIn {

  static final String NAMESPACE = "https://leaf-library.example/properties";
  static final String USER = "library";

  /** A folder that is there also while it is empty. */
  private static final String RECORDS = "records/";

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final Page PAGE = new Page("Leaf Library", "#3d6b1f");
  private static final DateTimeFormatter HTTP_DATE =
      DateTimeFormatter.RFC_1123_DATE_TIME.withZone(ZoneOffset.UTC);

  private final RecordLog documents;
  private final ControlledClock clock;
  private final String password;
  private final StandInServer server;

  /**
   * @throws IOException if the port cannot be opened
   */
  public LeafLibrary(int port, String password, Path data, ControlledClock clock)
      throws IOException {
    this.documents = new RecordLog(data.resolve("leaf-library.ndjson"));
    this.clock = clock;
    this.password = password;
    Routes routes =
        new Routes()
            .open("GET", "/", request -> page())
            .open("POST", "/documents", this::add)
            .open("PROPFIND", "/dav/{*path}", this::list)
            .open("GET", "/dav/{*path}", this::read)
            .open("PUT", "/dav/{*path}", this::write);
    this.server = new StandInServer(port, "", "", clock, routes);
  }

  @Override
  public LeafLibrary start() {
    server.start();
    return this;
  }

  @Override
  public int port() {
    return server.port();
  }

  /** RFC 7617. */
  private void signedIn(Request request) {
    String both = USER + ":" + password;
    String wanted =
        "Basic " + Base64.getEncoder().encodeToString(both.getBytes(StandardCharsets.UTF_8));
    if (request.header("Authorization").filter(wanted::equals).isEmpty()) {
      throw new Refusal(401, "sign in as " + USER);
    }
  }

  private Reply add(Request request) {
    Map<String, String> form = request.form();
    String path = form.getOrDefault("path", "").strip().replaceAll("^/+", "");
    if (path.isEmpty() || path.endsWith("/")) {
      throw Refusal.ofField("path", "a document has a path such as records/ferns/blechnum.txt");
    }
    keep(
        path,
        form.getOrDefault("text", ""),
        form.getOrDefault("kind", ""),
        form.getOrDefault("approved", ""));
    return PAGE.made("/" + path);
  }

  private synchronized void keep(String path, String text, String kind, String approved) {
    ObjectNode document =
        documents.get(path).map(ObjectNode::deepCopy).orElseGet(JSON::createObjectNode);
    String now = clock.instant().toString();
    if (!document.has("madeAt")) {
      document.put("id", path).put("madeAt", now);
    }
    document.put("changedAt", now).put("revision", document.path("revision").asInt() + 1);
    document.put("text", text);
    if (!kind.isEmpty()) {
      document.put("kind", kind);
    }
    if (!approved.isEmpty()) {
      document.put("approved", approved);
    }
    documents.keep(document);
  }

  private Reply read(Request request) {
    signedIn(request);
    ObjectNode document = find(request.slot("path"));
    return Reply.text("text/plain; charset=utf-8", document.path("text").asText())
        .with("ETag", tag(document));
  }

  private synchronized ObjectNode find(String path) {
    return documents.get(path).orElseThrow(() -> new Refusal(404, "there is no document /" + path));
  }

  private Reply write(Request request) {
    signedIn(request);
    keep(request.slot("path"), new String(request.body(), StandardCharsets.UTF_8), "", "");
    return Reply.empty();
  }

  private static String tag(ObjectNode document) {
    return "\"r"
        + document.path("revision").asInt()
        + "-"
        + document.path("madeAt").asText()
        + "\"";
  }

  /** RFC 4918 section 9.1, with Depth 0 or 1. */
  private synchronized Reply list(Request request) {
    signedIn(request);
    String path = request.slot("path");
    String folder = path.isEmpty() || path.endsWith("/") ? path : path + "/";
    List<ObjectNode> below =
        documents.all().stream().filter(d -> d.path("id").asText().startsWith(folder)).toList();
    boolean itself = documents.get(path).isPresent();
    if (below.isEmpty() && !itself && !folder.equals(RECORDS) && !path.isEmpty()) {
      throw new Refusal(404, "there is no folder /" + path);
    }
    StringBuilder xml =
        new StringBuilder(
            "<?xml version=\"1.0\" encoding=\"utf-8\"?><D:multistatus xmlns:D=\"DAV:\">");
    if (itself) {
      xml.append(response(find(path)));
    } else {
      xml.append(folderResponse(folder));
      if (!request.header("Depth").orElse("1").equals("0")) {
        Set<String> folders = new TreeSet<>();
        for (ObjectNode document : below) {
          String rest = document.path("id").asText().substring(folder.length());
          int slash = rest.indexOf('/');
          if (slash < 0) {
            xml.append(response(document));
          } else {
            folders.add(folder + rest.substring(0, slash + 1));
          }
        }
        folders.forEach(inner -> xml.append(folderResponse(inner)));
      }
    }
    Reply reply =
        Reply.text("application/xml; charset=utf-8", xml.append("</D:multistatus>").toString());
    return new Reply(207, reply.headers(), reply.body());
  }

  private static String folderResponse(String folder) {
    return "<D:response><D:href>%s</D:href><D:propstat><D:prop><D:resourcetype><D:collection/></D:resourcetype></D:prop><D:status>HTTP/1.1 200 OK</D:status></D:propstat></D:response>"
        .formatted(href(folder));
  }

  private static String response(ObjectNode document) {
    return """
        <D:response><D:href>%s</D:href><D:propstat><D:prop><D:resourcetype/>
        <D:getetag>%s</D:getetag><D:getlastmodified>%s</D:getlastmodified>
        <D:creationdate>%s</D:creationdate><D:getcontentlength>%d</D:getcontentlength>
        <D:getcontenttype>text/plain</D:getcontenttype>
        <kind xmlns="%s">%s</kind><approved xmlns="%s">%s</approved><revision xmlns="%s">%d</revision>
        </D:prop><D:status>HTTP/1.1 200 OK</D:status></D:propstat></D:response>
        """
        .formatted(
            href(document.path("id").asText()),
            Page.escape(tag(document)),
            HTTP_DATE.format(Instant.parse(document.path("changedAt").asText())),
            document.path("madeAt").asText(),
            document.path("text").asText().getBytes(StandardCharsets.UTF_8).length,
            NAMESPACE,
            Page.escape(document.path("kind").asText()),
            NAMESPACE,
            Page.escape(document.path("approved").asText()),
            NAMESPACE,
            document.path("revision").asInt());
  }

  private static String href(String path) {
    try {
      return new URI(null, null, "/dav/" + path, null).getRawPath();
    } catch (URISyntaxException e) {
      throw new IllegalStateException("a path that is none: " + path, e);
    }
  }

  private synchronized Reply page() {
    Map<String, String> fields = new LinkedHashMap<>();
    fields.put("path", "Path, for example records/ferns/blechnum.txt");
    fields.put("kind", "Kind, for example plant record");
    fields.put("approved", "Approved? yes or no");
    fields.put("text", "What it says");
    return PAGE.with(
        Page.form("/documents", fields, "Add or revise")
            + "<h2>Documents</h2>"
            + Page.table(
                List.of("Path", "Kind", "Approved", "Revision"),
                documents.all().stream()
                    .map(
                        document ->
                            List.of(
                                Page.escape(document.path("id").asText()),
                                Page.escape(document.path("kind").asText()),
                                Page.escape(document.path("approved").asText()),
                                document.path("revision").asText()))
                    .toList()));
  }

  @Override
  public void close() {
    server.close();
  }
}
