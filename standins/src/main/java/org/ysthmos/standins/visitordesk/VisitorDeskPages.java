package org.ysthmos.standins.visitordesk;

import org.ysthmos.standins.http.StandInServer;

/** The two pages a visitor sees. */
final class VisitorDeskPages {

  private VisitorDeskPages() {}

  private static final String PAGE =
      """
      <!doctype html>
      <html lang="en"><head><meta charset="utf-8"><title>Visitor Desk</title>
      <meta name="viewport" content="width=device-width">
      <style>
        body{font:17px/1.5 Georgia,serif;background:#eef3ea;color:#22301f;margin:0}
        main{max-width:34rem;margin:2rem auto;background:#fff;padding:1.5rem 2rem;border-top:6px solid #5b7f3b}
        h1{font-size:1.5rem;margin:0 0 .5rem} label{display:block;margin:1rem 0 .2rem;font-weight:bold}
        input,textarea{font:inherit;width:100%%;box-sizing:border-box;padding:.4rem;border:1px solid #8a9a80}
        button{font:inherit;margin-top:1.4rem;padding:.5rem 1.4rem;background:#40612a;color:#fff;border:0}
        small{color:#4d5c48}
      </style></head><body><main>%s</main></body></html>
      """;

  static String form() {
    return PAGE.formatted(
        """
        <h1>Tell the garden about a hazard</h1>
        <p>Tidewrack Botanic Garden, Visitor Desk</p>
        <form method="post" action="/reports">
          <label for="place">Where is it?</label>
          <input id="place" name="place" placeholder="Fern gully, lower boardwalk">
          <label for="problem">What is wrong?</label>
          <textarea id="problem" name="problem" rows="3"></textarea>
          <label for="seenOn">When did you see it?</label>
          <input id="seenOn" name="seenOn" placeholder="23 November 2026">
          <label for="danger">How dangerous is it? <small>1 hardly, 10 very</small></label>
          <input id="danger" name="danger" inputmode="numeric">
          <label for="mail">Your mail address</label>
          <input id="mail" name="mail" type="email">
          <label for="photo">Link to a photo <small>if you have one</small></label>
          <input id="photo" name="photo" type="url">
          <button type="submit">Send</button>
        </form>
        """);
  }

  static String thanks(String number) {
    return PAGE.formatted(
        """
        <h1>Thank you</h1>
        <p>We have your report. Its number is <b id="number">%s</b>.</p>
        <p><a href="/">Report another hazard</a></p>
        """
            .formatted(StandInServer.escape(number)));
  }
}
