package org.ysthmos.app.reference;

import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.table.TableUsers;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.table.ReferenceTable;

/** The live bridges that use a table or a calendar. */
@Component
class Users implements TableUsers {

  /** A bridge that uses it. */
  record UserView(String id, String name) {}

  private final Bridges bridges;

  Users(Bridges bridges) {
    this.bridges = bridges;
  }

  List<UserView> ofTable(String id) {
    return those(version -> version.tables().contains(id));
  }

  List<UserView> ofCalendar(String id) {
    return those(version -> version.calendars().contains(id));
  }

  private List<UserView> those(Predicate<BridgeVersion> uses) {
    return bridges.live().stream()
        .map(Bridges.Live::version)
        .filter(uses)
        .map(one -> new UserView(one.definition().id(), one.definition().name()))
        .toList();
  }

  @Override
  public void requireUsable(ReferenceTable table) {
    require(now -> now.with(table));
  }

  private void require(UnaryOperator<Catalog> change) {
    Map<String, String> broken = bridges.brokenBy(change);
    if (!broken.isEmpty()) {
      StringBuilder why =
          new StringBuilder("Nothing was kept, since live bridges use it as it is.");
      broken.forEach((name, problem) -> why.append(' ').append(name).append(": ").append(problem));
      throw new ApiProblem(
          HttpStatus.CONFLICT, "A live bridge could not be used", why.append('.').toString());
    }
  }

  /**
   * @throws ApiProblem if a bridge uses it
   */
  static void requireUnused(List<UserView> users) {
    if (!users.isEmpty()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "In use",
          "It is used by %s. Let those bridges use another first, or retire them."
              .formatted(String.join(", ", users.stream().map(UserView::name).toList())));
    }
  }

  @Override
  public void refresh() {
    bridges.refresh();
  }
}
