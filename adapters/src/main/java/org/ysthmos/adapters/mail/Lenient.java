package org.ysthmos.adapters.mail;

import java.util.List;

/**
 * Has mails be read as far as they go. The library takes these settings for the whole process
 * alone, when its classes are first used.
 */
final class Lenient {

  private static final List<String> SETTINGS =
      List.of(
          "mail.mime.base64.ignoreerrors",
          "mail.mime.uudecode.ignoreerrors",
          "mail.mime.uudecode.ignoremissingbeginend",
          "mail.mime.ignoreunknownencoding",
          "mail.mime.multipart.allowempty");

  private Lenient() {}

  /** Makes the settings, unless whoever starts the process chose otherwise. */
  static void install() {
    for (String setting : SETTINGS) {
      if (System.getProperty(setting) == null) {
        System.setProperty(setting, "true");
      }
    }
  }
}
