package org.ysthmos.standins;

import static org.assertj.core.api.Assertions.assertThat;

import io.swagger.v3.parser.OpenAPIV3Parser;
import io.swagger.v3.parser.core.models.SwaggerParseResult;
import java.net.URI;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.standins.choretable.ChoreTable;
import org.ysthmos.standins.climatedesk.ClimateDesk;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.friendsregister.FriendsRegister;
import org.ysthmos.standins.gardenchat.GardenChat;
import org.ysthmos.standins.groundsboard.GroundsBoard;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.visitordesk.VisitorDesk;
import org.ysthmos.standins.worksledger.WorksLedger;

/** The descriptions are OpenAPI 3, and every path they name is served to whoever signs in alone. */
class DescriptionsTest {

  private static final URI NOWHERE = URI.create("http://127.0.0.1:9");

  @TempDir Path data;

  @FunctionalInterface
  private interface Maker {
    StandIn make(ControlledClock clock) throws Exception;
  }

  @TestFactory
  Stream<DynamicTest> everyDescriptionIsGoodAndTrue() {
    return Stream.of(
        test("visitor desk", c -> new VisitorDesk(0, "t", data, c, NOWHERE, "whsec_c2VjcmV0")),
        test("grounds board", c -> new GroundsBoard(0, "t", data, c)),
        test("friends register", c -> new FriendsRegister(0, "t", data, c)),
        test("works ledger", c -> new WorksLedger(0, "t", data, c)),
        test("climate desk", c -> new ClimateDesk(0, "t", data, c, NOWHERE, "s")),
        test("garden chat", c -> new GardenChat(0, "t", data, c, NOWHERE, "s")),
        test("chore table", c -> new ChoreTable(0, "t", data, c)));
  }

  private static DynamicTest test(String name, Maker maker) {
    return DynamicTest.dynamicTest(
        name,
        () -> {
          try (StandIn standIn = maker.make(new ControlledClock()).start()) {
            holds(standIn);
          }
        });
  }

  private static void holds(StandIn standIn) throws Exception {
    String text = Bench.call(standIn, "no token", "GET", "/openapi.json", "").body();
    SwaggerParseResult parsed = new OpenAPIV3Parser().readContents(text);
    assertThat(parsed.getMessages()).isEmpty();
    assertThat(parsed.getOpenAPI().getPaths()).isNotEmpty();
    for (var path : parsed.getOpenAPI().getPaths().entrySet()) {
      for (var operation : path.getValue().readOperationsMap().entrySet()) {
        String address =
            path.getKey()
                .replace("{board}", "paths-and-trees")
                .replace("{sheet}", "rounds")
                .replaceAll("\\{(id|row)}", "none");
        int status =
            Bench.call(standIn, "no token", operation.getKey().name(), address, "{}").statusCode();
        assertThat(status).as(operation.getKey() + " " + path.getKey()).isEqualTo(401);
      }
    }
  }
}
