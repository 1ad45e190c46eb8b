package org.ysthmos.app.installation;

import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.who.By;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableChange;
import org.ysthmos.core.table.TableReader;
import org.ysthmos.core.table.TableWriter;

/** The reference tables with their rows. */
@Component
@Order(3)
class TableSort extends FolderSort {

  static final String FOLDER = "tables/";

  private final Tables tables;

  TableSort(Tables tables) {
    super(FOLDER);
    this.tables = tables;
  }

  static ReferenceTable read(String text) {
    return TableReader.read(DocumentNode.parse(text));
  }

  @Override
  public SortedMap<String, String> here() {
    SortedMap<String, String> here = new TreeMap<>();
    tables.all().forEach((id, table) -> here.put(path(id), TableWriter.write(table)));
    return here;
  }

  @Override
  public String asExported(String path, String text) {
    ReferenceTable table = read(text);
    requireCalled(table.definition().id(), path);
    return TableWriter.write(table);
  }

  @Override
  public List<String> differences(String path, String before, String after) {
    return List.of(TableChange.words(read(before), read(after)));
  }

  @Override
  public void put(String path, String text, By by) {
    ReferenceTable unused = tables.put(read(text), by);
  }

  @Override
  public void remove(String path, By by) {
    tables.removeTable(id(path), by);
  }
}
