package org.ysthmos.adapters.mail;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.net.URI;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Properties;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MailRecordTest {

  private static JsonNode record(String source, Charset charset) throws Exception {
    MimeMessage mail =
        new MimeMessage(
            Session.getInstance(new Properties()),
            new ByteArrayInputStream(source.replace("\n", "\r\n").getBytes(charset)));
    return MailRecord.of(mail, URI.create("imaps://mail.example"), "Visits/Spring", 7, 12);
  }

  private static JsonNode record(String source) throws Exception {
    return record(source, StandardCharsets.UTF_8);
  }

  /** RFC 2047 section 8: the examples of how encoded words are displayed. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "=?ISO-8859-1?Q?a?= | a",
        "=?ISO-8859-1?Q?a?= b | a b",
        "=?ISO-8859-1?Q?a?= =?ISO-8859-1?Q?b?= | ab",
        "=?ISO-8859-1?Q?a?=  =?ISO-8859-1?Q?b?= | ab",
        "=?ISO-8859-1?Q?a_b?= | a b",
        "=?ISO-8859-1?Q?a?= =?ISO-8859-2?Q?_b?= | a b",
        "=?ISO-8859-1?B?SWYgeW91IGNhbiByZWFkIHRoaXMgeW8=?= =?ISO-8859-2?B?dSB1bmRlcnN0YW5kIHRoZSBleGFtcGxlLg==?= | If you can read this you understand the example.",
      })
  void encodedWordsAreReadAsTheStandardShows(String written, String read) throws Exception {
    assertThat(record("Subject: " + written + "\n\nx").path("subject").asText()).isEqualTo(read);
  }

  /** RFC 2047 section 8: the examples of addresses. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "=?US-ASCII?Q?Keith_Moore?= <moore@cs.utk.edu> | Keith Moore | moore@cs.utk.edu",
        "=?ISO-8859-1?Q?Keld_J=F8rn_Simonsen?= <keld@dkuug.dk> | Keld Jørn Simonsen | keld@dkuug.dk",
        "=?ISO-8859-1?Q?Andr=E9?= Pirard <PIRARD@vm1.ulg.ac.be> | André Pirard | PIRARD@vm1.ulg.ac.be",
        "=?ISO-8859-1?Q?Patrik_F=E4ltstr=F6m?= <paf@nada.kth.se> | Patrik Fältström | paf@nada.kth.se",
      })
  void sendersAreReadAsTheStandardShows(String written, String name, String address)
      throws Exception {
    JsonNode record = record("From: " + written + "\n\nx");
    assertThat(record.path("fromName").asText()).isEqualTo(name);
    assertThat(record.path("from").asText()).isEqualTo(address);
  }

  private static final String MANY_PARTS =
      """
      Message-ID: <parts@school.example>
      Subject: Visit
      MIME-Version: 1.0
      Content-Type: multipart/mixed; boundary=outer

      --outer
      Content-Type: multipart/alternative; boundary=inner

      --inner
      Content-Type: text/plain; charset=utf-8
      Content-Transfer-Encoding: quoted-printable

      Caf=C3=A9 at ten
      --inner
      Content-Type: text/html; charset=utf-8

      <p>Café <b>at ten</b></p>
      --inner--
      --outer
      Content-Type: text/csv; name*=UTF-8''lista%20de%20crian%C3%A7as.csv
      Content-Disposition: attachment

      name,age
      Ana,9
      --outer
      Content-Type: application/pdf
      Content-Disposition: attachment; filename="=?UTF-8?Q?autoriza=C3=A7=C3=A3o.pdf?="
      Content-Transfer-Encoding: base64

      JVBERi0xLjQ=
      --outer--
      """;

  /** Parameter values in other charsets: RFC 2231 section 4; sections of an IMAP URL: RFC 5092. */
  @Test
  void partsBecomeTextPageAndAttachments() throws Exception {
    JsonNode record = record(MANY_PARTS);
    assertThat(record.path("text").asText()).isEqualTo("Café at ten");
    assertThat(record.path("html").asText()).contains("<b>at ten</b>");
    JsonNode list = record.path("attachments").path(0);
    assertThat(list.path("name").asText()).isEqualTo("lista de crianças.csv");
    assertThat(list.path("type").asText()).isEqualTo("text/csv");
    assertThat(list.path("text").asText()).contains("Ana,9");
    assertThat(list.path("link").asText())
        .isEqualTo("imap://mail.example/Visits/Spring;UIDVALIDITY=7/;UID=12/;SECTION=2");
    JsonNode paper = record.path("attachments").path(1);
    assertThat(paper.path("type").asText()).isEqualTo("application/pdf");
    assertThat(paper.has("text")).isFalse();
    assertThat(paper.path("link").asText()).endsWith(";SECTION=3");
  }

  @Test
  void pageAloneIsReadAsText() throws Exception {
    JsonNode record = record("Content-Type: text/html\n\n<p>One</p><p>Two</p><script>x</script>");
    assertThat(record.path("text").asText()).isEqualTo("One\n\nTwo");
  }

  @Test
  void textLongerThanIsReadSaysSo() throws Exception {
    JsonNode record = record("Subject: x\n\n" + "word ".repeat(40_000));
    assertThat(record.path("cut").asBoolean()).isTrue();
    assertThat(record.path("text").asText()).hasSizeLessThanOrEqualTo(MailContent.LONGEST_TEXT);
    assertThat(record("Subject: x\n\nshort").path("cut").asBoolean()).isFalse();
  }

  @Test
  void charsetThatNobodyKnowsLosesNothing() throws Exception {
    JsonNode record =
        record(
            "Content-Type: text/plain; charset=x-of-our-own\n\nolá", StandardCharsets.ISO_8859_1);
    assertThat(record.path("text").asText()).isEqualTo("olá");
  }

  @Test
  void mailWithoutAnIdIsKnownByWhatStaysTheSame() throws Exception {
    String source = "From: a@b.example\nDate: Tue, 24 Nov 2026 09:30:00 +0000\nSubject: S\n\nx";
    String id = record(source).path("id").asText();
    assertThat(id).startsWith("no-id-").isEqualTo(record(source).path("id").asText());
    assertThat(record(source.replace("Subject: S", "Subject: T")).path("id").asText())
        .isNotEqualTo(id);
    assertThat(record(source).path("link").asText()).isEmpty();
  }

  @Test
  void addressThatCannotBeReadIsKeptAsItIs() throws Exception {
    JsonNode record = record("From: <<broken\nTo: a@B.Example, c@d.example\n\nx");
    assertThat(record.path("from").asText()).isNotEmpty();
    assertThat(record.path("to").toString()).isEqualTo("[\"a@b.example\",\"c@d.example\"]");
  }

  /** RFC 2049 appendix A, a complex multipart example; from memory. */
  @Test
  void complexExampleOfTheStandardIsReadPartByPart() throws Exception {
    JsonNode record =
        record(
            """
            MIME-Version: 1.0
            From: Nathaniel Borenstein <nsb@nsb.fv.com>
            To: Ned Freed <ned@innosoft.com>
            Date: Fri, 07 Oct 1994 16:15:05 -0700 (PDT)
            Subject: A multipart example
            Content-Type: multipart/mixed;
                          boundary=unique-boundary-1

            This is the preamble area of a multipart message.
            Mail readers that understand multipart format
            should ignore this preamble.

            --unique-boundary-1

              ... Some text appears here ...

            --unique-boundary-1
            Content-type: text/plain; charset=US-ASCII

            This could have been part of the previous part, but
            illustrates explicit versus implicit typing of body
            parts.

            --unique-boundary-1
            Content-Type: multipart/parallel; boundary=unique-boundary-2

            --unique-boundary-2
            Content-Type: audio/basic
            Content-Transfer-Encoding: base64

              ... base64-encoded 8000 Hz single-channel
                  mu-law-format audio data goes here ...

            --unique-boundary-2
            Content-Type: image/jpeg
            Content-Transfer-Encoding: base64

              ... base64-encoded image data goes here ...

            --unique-boundary-2--

            --unique-boundary-1
            Content-type: text/enriched

            This is <bold><italic>enriched.</italic></bold>
            <smaller>as defined in RFC 1896</smaller>

            --unique-boundary-1
            Content-Type: message/rfc822

            From: (mailbox in US-ASCII)
            To: (address in US-ASCII)
            Subject: (subject in US-ASCII)
            Content-Type: Text/plain; charset=ISO-8859-1
            Content-Transfer-Encoding: Quoted-printable

              ... Additional text in ISO-8859-1 goes here ...

            --unique-boundary-1--
            """);
    assertThat(record.path("subject").asText()).isEqualTo("A multipart example");
    assertThat(record.path("from").asText()).isEqualTo("nsb@nsb.fv.com");
    assertThat(record.path("sentAt").asText()).isEqualTo("1994-10-07T23:15:05Z");
    assertThat(record.path("text").asText())
        .contains("Some text appears here")
        .doesNotContain("preamble");
    assertThat(record.path("attachments").findValuesAsText("type"))
        .contains("audio/basic", "image/jpeg");
  }
}
