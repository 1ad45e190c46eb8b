package org.ysthmos.app.installation;

import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.who.By;

/** The systems; where this installation reaches them and their secrets are its own. */
@Component
@Order(1)
class SystemSort extends FolderSort {

  static final String FOLDER = "systems/";

  private final Systems systems;

  SystemSort(Systems systems) {
    super(FOLDER);
    this.systems = systems;
  }

  @Override
  public SortedMap<String, String> here() {
    SortedMap<String, String> here = new TreeMap<>();
    systems.documents().forEach((id, document) -> here.put(path(id), document));
    return here;
  }

  @Override
  public String asExported(String path, String text) {
    requireCalled(SystemReader.read(text).id(), path);
    return text;
  }

  @Override
  public void put(String path, String text, By by) {
    systems.put(text);
  }

  @Override
  public void remove(String path, By by) {
    systems.remove(id(path));
  }
}
