package org.ysthmos.core.document;

/**
 * What is wrong in a document and where.
 *
 * @param path the place by keys, for example {@code fields/due/steps/1}; list places count from 0
 * @param line counted from 1; 0 where the place is not known
 * @param column counted from 1; 0 where the place is not known
 * @param message what is wrong and what to write instead
 */
public record DocumentProblem(String path, int line, int column, String message) {

  @Override
  public String toString() {
    String where = path.isEmpty() ? "" : " (" + path + ")";
    return line == 0 ? message : "line %d, column %d%s: %s".formatted(line, column, where, message);
  }
}
