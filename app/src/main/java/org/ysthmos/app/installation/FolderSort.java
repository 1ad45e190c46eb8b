package org.ysthmos.app.installation;

/** A sort of documents that stand in a folder of their own, each called by its id. */
abstract class FolderSort implements Sort {

  static final String ENDING = ".yaml";

  private final String folder;

  FolderSort(String folder) {
    this.folder = folder;
  }

  @Override
  public final boolean owns(String path) {
    return Paths.isIn(path, folder, ENDING);
  }

  final String path(String id) {
    return folder + id + ENDING;
  }

  final String id(String path) {
    return Paths.id(path, folder, ENDING);
  }

  /**
   * @throws IllegalArgumentException if a document says that it is another than it is called
   */
  final void requireCalled(String said, String path) {
    if (!said.equals(id(path))) {
      throw new IllegalArgumentException(
          "it is of “%s”, so its file is to be called by that".formatted(said));
    }
  }
}
