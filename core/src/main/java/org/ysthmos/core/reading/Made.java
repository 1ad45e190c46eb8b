package org.ysthmos.core.reading;

import java.net.URI;
import java.util.Optional;
import org.ysthmos.core.value.Link;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/**
 * The task that was made of an event, as what comes then can name it. Until it is made, marks stand
 * for its id and its link; they are replaced when it is.
 *
 * @param link the page on which people see it; nothing if its system has none
 */
public record Made(Value id, Value link) {

  private static final String ID_MARK = "urn:ysthmos:made:id";
  private static final String LINK_MARK = "urn:ysthmos:made:link";

  /** No task, where none is made. */
  public static final Made NONE = new Made(Nothing.NOTHING, Nothing.NOTHING);

  /** A task that is made later. */
  public static final Made LATER =
      new Made(Text.of(ID_MARK), new Link(URI.create(LINK_MARK), LINK_MARK));

  /** A task that is there. */
  public static Made of(String id, Optional<URI> page) {
    return new Made(
        Text.of(id), page.<Value>map(uri -> new Link(uri, uri.toString())).orElse(Nothing.NOTHING));
  }

  /** A value with the task that was made in place of its marks. */
  public Value filled(Value value) {
    return switch (value) {
      case Link marked when marked.address().toString().equals(LINK_MARK) -> link;
      case Text text when text.text().contains(LINK_MARK) || text.text().contains(ID_MARK) ->
          Text.of(text.text().replace(LINK_MARK, link.display()).replace(ID_MARK, id.display()));
      default -> value;
    };
  }

  /** A text with words in place of marks, for showing it before the task is made. */
  public static String shown(String text) {
    return text.contains("urn:ysthmos:made:")
        ? text.replace(LINK_MARK, "(link of the task)").replace(ID_MARK, "(id of the task)")
        : text;
  }
}
