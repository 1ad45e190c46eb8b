package org.ysthmos.core.document;

import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;

/** Languages as documents name them: BCP 47 tags of languages that the platform knows. */
public final class Languages {

  private static final Set<String> KNOWN =
      Locale.availableLocales()
          .map(Locale::getLanguage)
          .filter(language -> !language.isEmpty())
          .collect(Collectors.toUnmodifiableSet());

  private Languages() {}

  /**
   * @throws DocumentException if no such language is known
   */
  public static Locale read(DocumentNode node) {
    Locale locale = Locale.forLanguageTag(node.text());
    if (!KNOWN.contains(locale.getLanguage())) {
      throw node.refuse("“" + node.text() + "” is no language; write for example en or pt-PT");
    }
    return locale;
  }
}
