package org.ysthmos.app.installation;

import java.util.List;
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
class SystemSort implements Sort {

  private static final String FOLDER = "systems/";
  private static final String ENDING = ".yaml";

  private final Systems systems;

  SystemSort(Systems systems) {
    this.systems = systems;
  }

  @Override
  public boolean owns(String path) {
    return Paths.isIn(path, FOLDER, ENDING);
  }

  @Override
  public SortedMap<String, String> here() {
    SortedMap<String, String> here = new TreeMap<>();
    systems.documents().forEach((id, document) -> here.put(FOLDER + id + ENDING, document));
    return here;
  }

  @Override
  public String asExported(String path, String text) {
    Paths.requireCalled(SystemReader.read(text).id(), Paths.id(path, FOLDER, ENDING));
    return text;
  }

  @Override
  public List<String> differences(String path, String before, String after) {
    return Paths.lines(before, after);
  }

  @Override
  public void put(String path, String text, By by) {
    systems.put(text);
  }

  @Override
  public void remove(String path, By by) {
    systems.remove(Paths.id(path, FOLDER, ENDING));
  }
}
