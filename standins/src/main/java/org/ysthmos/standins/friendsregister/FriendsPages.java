package org.ysthmos.standins.friendsregister;

import com.fasterxml.jackson.databind.node.ObjectNode;
import org.ysthmos.standins.http.StandInServer;

/** The pages on which friends pledge something, and see what was pledged. */
final class FriendsPages {

  private FriendsPages() {}

  private static final String PAGE =
      """
      <!doctype html>
      <html lang="en"><head><meta charset="utf-8"><title>Friends Register</title>
      <meta name="viewport" content="width=device-width">
      <style>
        body{font:16px/1.5 Verdana,sans-serif;background:#f3eef6;color:#2a2331;margin:0}
        main{max-width:36rem;margin:2rem auto;background:#fff;padding:1.5rem 2rem;border-left:8px solid #6b4a86}
        h1{font-size:1.3rem;margin:0 0 .5rem} label{display:block;margin:1rem 0 .2rem;font-weight:bold}
        input,select{font:inherit;width:100%%;box-sizing:border-box;padding:.4rem;border:1px solid #8f829a}
        button{font:inherit;margin-top:1.4rem;padding:.5rem 1.4rem;background:#553a6d;color:#fff;border:0}
      </style></head><body><main>%s</main></body></html>
      """;

  static String form() {
    return PAGE.formatted(
        """
        <h1>Pledge something to the garden</h1>
        <p>Friends of the Tidewrack Botanic Garden</p>
        <form method="post" action="/pledges">
          <label for="mail">Your mail address</label>
          <input id="mail" name="mail" type="email">
          <label for="what">What do you pledge?</label>
          <input id="what" name="what" placeholder="A bench for the fern gully">
          <label for="amount">How much is it, in euros?</label>
          <input id="amount" name="amount" inputmode="decimal">
          <label for="stewardMail">Which steward do you know? Their mail address</label>
          <input id="stewardMail" name="stewardMail" type="email">
          <label for="payerMail">Who pays, if it is not you? Their mail address</label>
          <input id="payerMail" name="payerMail" type="email">
          <button type="submit">Pledge</button>
        </form>
        <h1>Become a friend of the garden</h1>
        <form method="post" action="/people">
          <label for="friendName">Your name</label>
          <input id="friendName" name="name">
          <label for="friendMail">How can we write to you?</label>
          <input id="friendMail" name="mail" type="email" required>
          <label for="ownerMail">Who looks after you? The mail address of a steward</label>
          <input id="ownerMail" name="ownerMail" type="email">
          <label for="kind">What kind of membership?</label>
          <select id="kind" name="kind"><option>single</option><option>family</option><option>school</option></select>
          <button type="submit">Join</button>
        </form>
        """);
  }

  static String thanks(String what, String number) {
    return PAGE.formatted(
        """
        <h1>Thank you</h1>
        <p>%s has the number <b id="number">%s</b>.</p>
        <p><a href="/">Pledge something else</a></p>
        """
            .formatted(what, StandInServer.escape(number)));
  }

  static String record(String title, ObjectNode record) {
    StringBuilder rows = new StringBuilder();
    record
        .properties()
        .forEach(
            field ->
                rows.append("<dt>")
                    .append(StandInServer.escape(field.getKey()))
                    .append("</dt><dd>")
                    .append(StandInServer.escape(field.getValue().asText()))
                    .append("</dd>"));
    return PAGE.formatted("<h1>" + title + "</h1><dl>" + rows + "</dl>");
  }
}
