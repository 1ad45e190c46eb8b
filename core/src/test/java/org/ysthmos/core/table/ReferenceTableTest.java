package org.ysthmos.core.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.testkit.Steps;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

class ReferenceTableTest {

  private static final ReferenceTable STEWARDS =
      Objects.requireNonNull(Garden.TABLES.get("stewards"));
  private static final ReferenceTable LANES =
      Objects.requireNonNull(Garden.TABLES.get("mail-lanes"));

  @Test
  void keysIgnoreCaseOnlyIfTheTableSaysSo() {
    assertThat(STEWARDS.find(List.of("OLIVE@Tidewrack.example"))).isPresent();
    assertThat(LANES.find(List.of("School-Visits", "yes"))).isEmpty();
    assertThat(LANES.find(List.of("school-visits", "yes"))).isPresent();
  }

  /** Source: Unicode UAX 15, é and e with U+0301 are canonically equivalent. */
  @Test
  void accentWrittenApartIsTheSameKey() {
    ReferenceTable table =
        TableCsv.read("mail,person\r\nin\u00eas,tb-02\r\n", STEWARDS.definition());
    assertThat(table.find(List.of("ine\u0302s"))).isPresent();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "OLIVE@tidewrack.example;fail;tb-07",
        "new@tidewrack.example;fail;“new@tidewrack.example” is not in the table Stewards",
        "new@tidewrack.example;empty;''",
        "new@tidewrack.example;pass-through;new@tidewrack.example",
        "new@tidewrack.example;{ use: tb-01 };tb-01"
      })
  void answersForWhatIsNotFoundAsStated(String key, String answer, String gives) {
    Reading reading = Steps.reading();
    Computed computed =
        Steps.step("by-table: { table: stewards, not-found: " + answer + " }")
            .compile(ValueType.TEXT, Steps.SCOPE)
            .function()
            .apply(Text.of(key), reading);
    assertThat(Steps.shown(computed)).isEqualTo(gives);
    assertThat(reading.tableUses())
        .containsExactly(new TableUse("stewards", List.of(key), key.startsWith("OLIVE")));
  }

  @Test
  void ruleOverAListLooksUpEachItem() {
    assertThat(
            Steps.shown(
                Steps.apply(
                    "by-table: { table: stewards, not-found: empty }",
                    ListValue.ofTexts("rui@tidewrack.example", "x", "olive@tidewrack.example"))))
        .isEqualTo("tb-11, tb-07");
  }

  /** What goes there by a table comes back by it, whatever its keys; what stands twice does not. */
  @Test
  void keyOfARowIsFoundByWhatItHolds() {
    for (ReferenceTable.Row row : STEWARDS.rows()) {
      Computed there = Steps.apply("by-table: stewards", Text.of(row.keys().getFirst()));
      assertThat(Steps.shown(Steps.apply("key-by-table: stewards", (Value) there)))
          .isEqualTo(row.keys().getFirst());
    }
    ReferenceTable twice =
        STEWARDS.with(new ReferenceTable.Row(List.of("new@tidewrack.example"), values("tb-07")));
    assertThat(twice.holding(0, "tb-07")).hasSize(2);
    assertThat(twice.holding(0, "tb-11")).hasSize(1);
    assertThat(twice.holding(0, "")).isEmpty();
  }

  private static List<Value> values(String person) {
    return List.of(Constant.parse(person, ValueType.PERSON));
  }

  @Test
  void unknownKeysAreCollectedWithHowOftenTheyWereMet() {
    TableTally tally = new TableTally();
    for (String key : List.of("a", "b", "b", "olive@tidewrack.example", "b")) {
      boolean found = STEWARDS.find(List.of(key)).isPresent();
      tally.add(new TableUse("stewards", List.of(key), found));
    }
    assertThat(tally.unknown())
        .extracting(TableTally.Counted::keys, TableTally.Counted::times)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple(List.of("b"), 3),
            org.assertj.core.groups.Tuple.tuple(List.of("a"), 1));
    assertThat(tally.used()).singleElement().satisfies(c -> assertThat(c.times()).isEqualTo(1));
  }

  /** Source: RFC 4180 section 2, rules 1 to 7 with their examples, under the header of a table. */
  @ParameterizedTest(name = "rule {0}")
  @CsvSource(
      delimiter = '@',
      quoteCharacter = '`',
      value = {
        "1@aaa,bbb|zzz,yyy|@aaa=bbb zzz=yyy",
        "2@aaa,bbb|zzz,yyy@aaa=bbb zzz=yyy",
        "5@\"aaa\",\"bbb\"|zzz,yyy@aaa=bbb zzz=yyy",
        "6@\"aaa\",\"b|bb\"|zzz,yyy@aaa=b|bb zzz=yyy",
        "7@\"aaa\",\"b\"\"bb\"@aaa=b\"bb"
      })
  void readsCsvAsTheRfcSays(String rule, String csv, String rows) {
    TableDefinition definition =
        new TableDefinition(
            "t",
            "T",
            List.of("k"),
            new LinkedHashMap<>(Map.of("v", ValueType.TEXT)),
            Optional.empty(),
            Optional.empty());
    ReferenceTable table = TableCsv.read("k,v\r\n" + csv.replace("|", "\r\n"), definition);
    String read =
        table.rows().stream()
            .map(row -> row.keys().getFirst() + "=" + row.values().getFirst().display())
            .collect(Collectors.joining(" "));
    assertThat(read).isEqualTo(rows.replace("|", "\r\n"));
  }

  @Test
  void csvGoesRoundWithoutLoss() {
    Seeds.forSeeds(
        300,
        seeds -> {
          SequencedMap<String, ValueType> values = new LinkedHashMap<>();
          values.put("text", ValueType.TEXT);
          values.put("number", ValueType.NUMBER);
          values.put("day", ValueType.DAY);
          TableDefinition definition =
              new TableDefinition(
                  "t", "T", List.of("a", "b"), values, Optional.empty(), Optional.empty());
          ReferenceTable table = ReferenceTable.of(definition, List.of());
          for (int i = seeds.below(6); i > 0; i--) {
            String text = seeds.text();
            table =
                table.with(
                    new ReferenceTable.Row(
                        List.of("k" + seeds.text(), "k" + i),
                        List.of(
                            text.isEmpty() ? Nothing.NOTHING : Text.of(text),
                            seeds.below(3) == 0 ? Nothing.NOTHING : seeds.of(ValueType.NUMBER),
                            seeds.of(ValueType.DAY))));
          }
          ReferenceTable read = TableCsv.read(TableCsv.write(table), definition);
          assertThat(read.rows()).isEqualTo(table.rows());
        });
  }

  @Test
  void everyMistakeInACsvIsNamedWithItsLineAndNothingChanges() {
    String csv =
        """
        folder,flagged,lane,days
        a,yes,x,1
        b,yes,x,many
        ,yes,x,1
        a,yes,y,2
        c,yes
        """;
    DocumentException refused =
        catchThrowableOfType(DocumentException.class, () -> TableCsv.read(csv, LANES.definition()));
    assertThat(refused.problems())
        .extracting(p -> p.line() + " " + p.message())
        .containsExactly(
            "3 “many” is no number",
            "4 a key is empty",
            "5 the key “a” and “yes” stands in line 2 already",
            "6 the row has 2 cells, the header has 4");
  }

  @Test
  void columnThatIsNotKnownNamesTheNearest() {
    assertThatThrownBy(() -> TableCsv.read("mail,persn\r\n", STEWARDS.definition()))
        .hasMessageContaining("did you mean “person”?")
        .hasMessageContaining("the column “person” is missing");
  }

  @Test
  void byteOrderMarkOfASpreadsheetIsNoPartOfTheHeader() {
    assertThat(TableCsv.read("\uFEFFmail,person\r\nx,tb-1\r\n", STEWARDS.definition()).rows())
        .hasSize(1);
  }
}
