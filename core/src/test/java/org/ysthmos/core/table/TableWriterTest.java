package org.ysthmos.core.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.document.DocumentNode;

class TableWriterTest {

  /** Texts that YAML would read as something else, cells without a value, and no rows at all. */
  @Test
  void whatIsWrittenReadsAsTheSame() {
    ReferenceTable table =
        TableReader.read(
            DocumentNode.parse(
                """
                table: odd
                name: "Odd: ones"
                keys: [a, b]
                values: { n: number, t: text, d: day }
                not-found: fail
                rows:
                  - { a: "no", b: "007", n: 1.50, t: "two\\nlines", d: 2026-02-28 }
                  - { a: "", b: "x: y", t: "~" }
                """));
    String written = TableWriter.write(table);
    ReferenceTable again = TableReader.read(DocumentNode.parse(written));
    assertThat(again.definition()).isEqualTo(table.definition());
    assertThat(again.rows()).isEqualTo(table.rows());
    assertThat(TableWriter.write(again)).isEqualTo(written);

    String empty = TableWriter.write(ReferenceTable.of(table.definition(), List.of()));
    assertThat(empty).doesNotContain("rows");
    assertThat(TableReader.read(DocumentNode.parse(empty)).rows()).isEmpty();
  }
}
