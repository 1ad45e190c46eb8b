package org.ysthmos.adapters.mail;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import java.util.function.Function;

/**
 * Mails that are not written as the standards have it, made by a seed. Each kind was met in real
 * mailboxes; common practice, no source.
 */
final class BadMails {

  /** A kind of mail: its name, and its source given a number and chance. */
  record Kind(String name, Function<Random, String> source) {}

  private static final String HEAD =
      "From: Ana <ana@school.example>\r\nTo: visits@tidewrack.example\r\n"
          + "Date: Tue, 24 Nov 2026 09:30:00 +0000\r\nMIME-Version: 1.0\r\n";

  private static final List<Kind> KINDS =
      List.of(
          kind(
              "base64 that is none",
              "Content-Type: text/plain\r\nContent-Transfer-Encoding: base64\r\n\r\n%%%not base64***\r\nQUJ\r\n"),
          kind(
              "base64 that is cut",
              "Content-Type: text/plain\r\nContent-Transfer-Encoding: base64\r\n\r\nQUJDRE\r\n"),
          kind(
              "unknown transfer encoding",
              "Content-Type: text/plain\r\nContent-Transfer-Encoding: x-secret\r\n\r\nHello\r\n"),
          kind(
              "multipart without boundary",
              "Content-Type: multipart/mixed\r\n\r\n--a\r\n\r\nHello\r\n--a--\r\n"),
          kind(
              "multipart whose boundary never comes",
              "Content-Type: multipart/mixed; boundary=zzz\r\n\r\nHello\r\n"),
          kind(
              "multipart that is cut",
              "Content-Type: multipart/alternative; boundary=b\r\n\r\n--b\r\nContent-Type: text/plain\r\n\r\nHel"),
          kind(
              "bad uuencode",
              "Content-Type: text/plain\r\nContent-Transfer-Encoding: x-uuencode\r\n\r\nM not uuencoded at all\r\n"),
          kind(
              "bad quoted-printable",
              "Content-Type: text/plain\r\nContent-Transfer-Encoding: quoted-printable\r\n\r\n=ZZ =4\r\n="),
          kind("unknown charset", "Content-Type: text/plain; charset=x-klingon\r\n\r\nqapla\r\n"),
          kind("content type that is none", "Content-Type: ;;;=\r\n\r\nHello\r\n"),
          kind("content type of one word", "Content-Type: text\r\n\r\nHello\r\n"),
          kind(
              "file name that cannot be read",
              "Content-Type: image/png; name*=utf-99'x'%ZZ\r\nContent-Disposition: attachment; filename*=bad\r\n\r\nPNG\r\n"),
          kind(
              "mail in a mail that is none",
              "Content-Type: message/rfc822\r\n\r\nno headers here\r\n"),
          kind(
              "subject of broken encoded words",
              "Subject: =?utf-8?B?%%%?= =?x?Q?\r\n\r\nHello\r\n"),
          kind(
              "subject of control characters",
              "Subject: bell \u0007 and escape \u001b[1m\r\n\r\nHello\r\n"),
          kind("no body", ""),
          new Kind("sender without a domain", r -> "From: root\r\nSubject: cron\r\n\r\nDone\r\n"),
          new Kind(
              "sender that is no address", r -> "From: <<<>>> (\r\nSubject: x\r\n\r\nHello\r\n"),
          new Kind(
              "date that is none",
              r -> "From: a@b.example\r\nDate: yesterday\r\nSubject: x\r\n\r\nHi\r\n"),
          new Kind("no headers", r -> "\r\nHello\r\n"),
          new Kind(
              "header without a colon",
              r -> "From: a@b.example\r\nthis is nothing\r\nSubject: x\r\n\r\nHi\r\n"),
          new Kind(
              "header of 100,000 characters",
              r -> "From: a@b.example\r\nSubject: " + "x".repeat(100_000) + "\r\n\r\nHi\r\n"),
          new Kind(
              "text of control characters",
              r -> HEAD + "Subject: c\r\n\r\n" + "\u0001\u0002\u000b".repeat(30_000) + "\r\n"),
          new Kind("parts within parts", BadMails::nested),
          new Kind(
              "bytes by chance",
              r -> HEAD + "Content-Type: multipart/mixed; boundary=q\r\n\r\n--q\r\n" + noise(r)));

  private BadMails() {}

  private static Kind kind(String name, String rest) {
    return new Kind(
        name, random -> HEAD + (rest.startsWith("Subject") ? "" : "Subject: s\r\n") + rest);
  }

  private static String nested(Random random) {
    StringBuilder text = new StringBuilder(HEAD + "Subject: n\r\n");
    int deep = 10 + random.nextInt(40);
    for (int i = 0; i < deep; i++) {
      text.append("Content-Type: multipart/mixed; boundary=b")
          .append(i)
          .append("\r\n\r\n--b")
          .append(i)
          .append("\r\n");
    }
    return text + "\r\nat the bottom\r\n";
  }

  private static String noise(Random random) {
    StringBuilder text = new StringBuilder();
    for (int i = random.nextInt(2_000); i > 0; i--) {
      // No line ends alone, which not every server takes.
      text.append((char) (0x20 + random.nextInt(0xe0)));
    }
    return text + "\r\n";
  }

  static int kinds() {
    return KINDS.size();
  }

  static String name(int number) {
    return KINDS.get(number % KINDS.size()).name();
  }

  /** What is said of a mail that it could not be read of, or a part of it. */
  static String said(int number) {
    return switch (name(number)) {
      case "base64 that is none", "base64 that is cut" -> "its base64 is damaged";
      case "unknown transfer encoding" -> "“x-secret”";
      case "multipart without boundary" -> "no boundary";
      default -> "";
    };
  }

  /** The source of a mail, with its number in a header of its own. */
  static byte[] source(int number, Random random) {
    String source = KINDS.get(number % KINDS.size()).source().apply(random);
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    if (!name(number).equals("no headers")) {
      bytes.writeBytes(
          ("Message-ID: <bad-%d@corpus.example>\r\n".formatted(number))
              .getBytes(StandardCharsets.US_ASCII));
    }
    bytes.writeBytes(source.getBytes(StandardCharsets.ISO_8859_1));
    return bytes.toByteArray();
  }
}
