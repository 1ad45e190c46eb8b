package org.ysthmos.adapters.drop;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;

/**
 * What a file holds.
 *
 * @param remarks what had to be found out, as the document does not say it; each goes on after
 *     {@code The file … of …}
 */
record FileRecords(List<JsonNode> records, List<String> remarks) {

  FileRecords {
    records = List.copyOf(records);
    remarks = List.copyOf(remarks);
  }

  FileRecords with(List<String> more) {
    List<String> all = new ArrayList<>(more);
    all.addAll(remarks);
    return new FileRecords(records, all);
  }
}
