package org.ysthmos.core.table;

import java.util.List;
import java.util.Map;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;

/** The stated answer for a key that a table does not have. */
public sealed interface NotFound {

  /** The rule fails, and says which key is missing in which table. */
  record Fail() implements NotFound {}

  /** There is no value. */
  record LeaveEmpty() implements NotFound {}

  /** The key itself is the value. */
  record PassThrough() implements NotFound {}

  /** A stated value, written as the column's type is written. */
  record Use(String written) implements NotFound {}

  /** The answer in words, to follow “if not found,”. */
  default String sentence() {
    return switch (this) {
      case Fail fail -> "it fails";
      case LeaveEmpty leaveEmpty -> "it stays empty";
      case PassThrough passThrough -> "the key itself";
      case Use use -> "“" + use.written() + "”";
    };
  }

  /**
   * Reads {@code fail}, {@code empty}, {@code pass-through}, or {@code use} with a value.
   *
   * @throws org.ysthmos.core.document.DocumentException if it is none of them
   */
  static NotFound read(DocumentNode node) {
    if (node.isGroup()) {
      return new Use(node.only("use").need("use").text());
    }
    return switch (node.text()) {
      case "fail" -> new Fail();
      case "empty" -> new LeaveEmpty();
      case "pass-through" -> new PassThrough();
      default ->
          throw node.refuse(
              Nearest.unknown("answer", node.text(), List.of("fail", "empty", "pass-through"))
                  + "; a stated value is written { use: … }");
    };
  }

  /** As documents write it: a word, or a group with {@code use}. */
  default Object toDocument() {
    return switch (this) {
      case Fail fail -> "fail";
      case LeaveEmpty leaveEmpty -> "empty";
      case PassThrough passThrough -> "pass-through";
      case Use use -> Map.of("use", use.written());
    };
  }
}
