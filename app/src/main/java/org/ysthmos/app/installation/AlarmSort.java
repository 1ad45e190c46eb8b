package org.ysthmos.app.installation;

import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.ysthmos.app.incident.Alarms;
import org.ysthmos.app.who.By;

/** Who is told of incidents. */
@Component
@Order(6)
class AlarmSort implements Sort {

  static final String PATH = "alarms.yaml";

  private final Alarms alarms;

  AlarmSort(Alarms alarms) {
    this.alarms = alarms;
  }

  @Override
  public boolean owns(String path) {
    return path.equals(PATH);
  }

  @Override
  public SortedMap<String, String> here() {
    SortedMap<String, String> here = new TreeMap<>();
    if (!alarms.document().isBlank()) {
      here.put(PATH, alarms.document());
    }
    return here;
  }

  /** Whether it fits the systems is seen once they are there. */
  @Override
  public String asExported(String path, String text) {
    return text;
  }

  @Override
  public void put(String path, String text, By by) {
    alarms.keep(text, by);
  }

  @Override
  public void remove(String path, By by) {
    alarms.keep("", by);
  }
}
