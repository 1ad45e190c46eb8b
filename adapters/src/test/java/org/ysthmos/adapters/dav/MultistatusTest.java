package org.ysthmos.adapters.dav;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class MultistatusTest {

  private static Multistatus read(String xml) throws Exception {
    return Multistatus.read(new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)));
  }

  /** RFC 4918 section 9.1.3, the example of retrieving named properties. */
  @Test
  void namedPropertiesAreReadAndThoseThatAreMissingLeftOut() throws Exception {
    Multistatus answer =
        read(
            """
            <?xml version="1.0" encoding="utf-8" ?>
            <D:multistatus xmlns:D="DAV:">
              <D:response xmlns:R="http://ns.example.com/boxschema/">
                <D:href>http://www.example.com/file</D:href>
                <D:propstat>
                  <D:prop>
                    <R:bigbox>
                      <R:BoxType>Box type A</R:BoxType>
                    </R:bigbox>
                    <R:author>
                      <R:Name>J.J. Johnson</R:Name>
                    </R:author>
                  </D:prop>
                  <D:status>HTTP/1.1 200 OK</D:status>
                </D:propstat>
                <D:propstat>
                  <D:prop><R:DingALing/><R:Random/></D:prop>
                  <D:status>HTTP/1.1 403 Forbidden</D:status>
                  <D:responsedescription> The user does not have access to the DingALing property.
                  </D:responsedescription>
                </D:propstat>
              </D:response>
              <D:responsedescription> There has been an access violation error.
              </D:responsedescription>
            </D:multistatus>
            """);
    Multistatus.Response file = answer.responses().getFirst();
    assertThat(file.href()).isEqualTo("http://www.example.com/file");
    assertThat(file.properties().keySet())
        .containsExactly(
            "{http://ns.example.com/boxschema/}bigbox", "{http://ns.example.com/boxschema/}author");
    assertThat(file.properties().get("{http://ns.example.com/boxschema/}author").strip())
        .isEqualTo("J.J. Johnson");
    assertThat(answer.syncToken()).isEmpty();
  }

  /** RFC 4918 section 9.1.5, the example of {@code allprop}, shortened to the container. */
  @Test
  void containerIsToldByItsResourceType() throws Exception {
    Multistatus answer =
        read(
            """
            <D:multistatus xmlns:D="DAV:"><D:response><D:href>/container/</D:href><D:propstat>
            <D:prop xmlns:R="http://ns.example.com/boxschema/">
              <D:creationdate>1997-12-01T17:42:21-08:00</D:creationdate>
              <D:displayname>Example collection</D:displayname>
              <D:resourcetype><D:collection/></D:resourcetype>
            </D:prop><D:status>HTTP/1.1 200 OK</D:status></D:propstat></D:response></D:multistatus>
            """);
    assertThat(answer.responses().getFirst().collection()).isTrue();
    assertThat(answer.responses().getFirst().dav("displayname")).contains("Example collection");
  }

  /** RFC 6578 section 3.8, the example of what changed since a token. */
  @Test
  void whatChangedSinceATokenComesWithTheNextAndTellsWhatIsGone() throws Exception {
    Multistatus answer =
        read(
            """
            <?xml version="1.0" encoding="utf-8" ?>
            <D:multistatus xmlns:D="DAV:">
              <D:response>
                <D:href>/home/cyrusdaboo/file.xml</D:href>
                <D:propstat><D:prop><D:getetag>"00002-abcd1"</D:getetag></D:prop>
                <D:status>HTTP/1.1 200 OK</D:status></D:propstat>
              </D:response>
              <D:response>
                <D:href>/home/cyrusdaboo/vcards.xml</D:href>
                <D:status>HTTP/1.1 404 Not Found</D:status>
              </D:response>
              <D:sync-token>http://example.com/ns/sync/1238</D:sync-token>
            </D:multistatus>
            """);
    assertThat(answer.syncToken()).contains("http://example.com/ns/sync/1238");
    assertThat(answer.responses()).extracting(Multistatus.Response::status).containsExactly(0, 404);
    assertThat(answer.responses().getFirst().dav("getetag")).contains("\"00002-abcd1\"");
  }

  @Test
  void whatIsNoMultistatusIsRefused() {
    assertThatThrownBy(() -> read("<html/>")).hasMessageContaining("but html");
    assertThatThrownBy(() -> read("no xml")).isInstanceOf(Multistatus.Unreadable.class);
  }

  /** A document type could name files of ours, or grow without end. */
  @Test
  void documentTypesAreRefused() {
    String evil =
        "<!DOCTYPE m [<!ENTITY x SYSTEM \"file:///etc/passwd\">]>"
            + "<D:multistatus xmlns:D=\"DAV:\">&x;</D:multistatus>";
    assertThatThrownBy(() -> read(evil))
        .isInstanceOf(Multistatus.Unreadable.class)
        .hasMessageContaining("document type");
  }

  /** An answer that breaks off is a broken connection, not a mistake of the server. */
  @Test
  void answerThatBreaksOffIsToldFromOneThatIsWrong() {
    InputStream broken =
        new InputStream() {
          private final byte[] begin =
              "<multistatus xmlns=\"DAV:\"><response>".getBytes(StandardCharsets.UTF_8);
          private int at;

          @Override
          public int read() throws IOException {
            if (at == begin.length) {
              throw new IOException("the connection was closed");
            }
            return begin[at++];
          }
        };
    assertThatThrownBy(() -> Multistatus.read(broken))
        .isInstanceOf(IOException.class)
        .hasMessageContaining("was closed");
  }

  /** Forty thousand documents come as a stream of some thirty megabytes, one at a time. */
  @Test
  void listingOfAnyLengthIsReadAsItComes() throws Exception {
    String one =
        """
        <response><href>/docs/%d.txt</href><propstat><prop><getetag>"%d"</getetag>%s</prop>
        <status>HTTP/1.1 200 OK</status></propstat></response>
        """;
    String filler = "<displayname>" + "x".repeat(600) + "</displayname>";
    InputStream xml =
        new InputStream() {
          private byte[] part = "<multistatus xmlns=\"DAV:\">".getBytes(StandardCharsets.UTF_8);
          private int next;
          private int at;

          @Override
          public int read() {
            if (at == part.length) {
              at = 0;
              if (next > 40_000) {
                return -1;
              }
              String text = next == 40_000 ? "</multistatus>" : one.formatted(next, next, filler);
              part = text.getBytes(StandardCharsets.UTF_8);
              next++;
            }
            return part[at++] & 0xff;
          }
        };
    AtomicInteger count = new AtomicInteger();
    var token =
        Multistatus.read(
            xml,
            response -> {
              assertThat(response.dav("getetag")).contains("\"" + count.get() + "\"");
              count.incrementAndGet();
            });
    assertThat(token).isEmpty();
    assertThat(count).hasValue(40_000);
  }
}
