package org.ysthmos.standins.postroom;

import java.util.List;
import java.util.stream.Collectors;
import org.ysthmos.standins.http.StandInServer;

/** The pages of the post room. */
final class PostRoomPages {

  private PostRoomPages() {}

  private static final String PAGE =
      """
      <!doctype html>
      <html lang="en"><head><meta charset="utf-8"><title>Post Room</title>
      <meta name="viewport" content="width=device-width">
      <style>
        body{font:15px/1.5 Georgia,serif;background:#eef1f4;color:#1f2830;margin:0}
        main{max-width:50rem;margin:1.5rem auto;background:#fff;padding:1.2rem 1.8rem;border-top:6px solid #39617f}
        h1{font-size:1.35rem;margin:0 0 .5rem} h2{font-size:1.05rem;margin:1.2rem 0 .3rem}
        label{display:block;margin:.7rem 0 .1rem} input,select,textarea{font:inherit;width:100%%;box-sizing:border-box;padding:.35rem}
        table{width:100%%;border-collapse:collapse} td{padding:.3rem .4rem;border-bottom:1px solid #d6dce1}
        button{font:inherit;padding:.25rem .8rem;background:#39617f;color:#fff;border:0}
      </style></head><body><main>%s</main></body></html>
      """;

  static String room(List<PostRoom.Shown> mails, String password) {
    String folders =
        mails.stream()
            .map(PostRoom.Shown::folder)
            .distinct()
            .map(
                folder ->
                    "<h2>" + escape(folder) + "</h2><table>" + rows(mails, folder) + "</table>")
            .collect(Collectors.joining());
    String options =
        PostRoom.FOLDERS.stream()
            .map(folder -> "<option>" + escape(folder) + "</option>")
            .collect(Collectors.joining());
    return PAGE.formatted(
        """
        <h1>Post Room: %s</h1>
        <p>Write to the garden's school visits.</p>
        <form method="post" action="/mails">
          <label for="name">Your name</label><input id="name" name="name">
          <label for="from">Your mail address</label><input id="from" name="from" type="email" required>
          <label for="folder">Goes to the folder</label><select id="folder" name="folder">%s</select>
          <label for="subject">Subject</label><input id="subject" name="subject">
          <label for="text">What would you like to say?</label><textarea id="text" name="text" rows="4"></textarea>
          <p><button type="submit">Send</button></p>
        </form>
        %s
        <p>Mail programs sign in as %s, password %s.</p>
        """
            .formatted(PostRoom.ADDRESS, options, folders, PostRoom.USER, escape(password)));
  }

  private static String rows(List<PostRoom.Shown> mails, String folder) {
    return mails.stream()
        .filter(mail -> mail.folder().equals(folder))
        .map(
            mail ->
                """
                <tr><td>%s</td><td>%s</td><td><form method="post" action="/flags">
                <input type="hidden" name="folder" value="%s"><input type="hidden" name="id" value="%s">
                <button name="on" value="%s">%s</button></form></td></tr>
                """
                    .formatted(
                        escape(mail.from()),
                        escape(mail.subject()),
                        escape(folder),
                        escape(mail.id()),
                        mail.flagged() ? "no" : "yes",
                        mail.flagged() ? "Take the flag off" : "Flag"))
        .collect(Collectors.joining());
  }

  static String thanks(String id) {
    return PAGE.formatted(
        "<h1>Sent</h1><p>Your mail has the id <b id=\"number\">%s</b>.</p><p><a href=\"/\">Back</a></p>"
            .formatted(escape(id)));
  }

  /** A text as mail programs write it nowadays: as a page. */
  static String asPage(String text) {
    return text.lines().map(line -> "<p>" + escape(line) + "</p>").collect(Collectors.joining());
  }

  private static String escape(String text) {
    return StandInServer.escape(text);
  }
}
