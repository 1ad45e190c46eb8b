package org.ysthmos.core.document;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import org.snakeyaml.engine.v2.api.Dump;
import org.snakeyaml.engine.v2.api.DumpSettings;
import org.snakeyaml.engine.v2.common.FlowStyle;
import org.snakeyaml.engine.v2.common.ScalarStyle;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.Tag;
import org.snakeyaml.engine.v2.representer.StandardRepresenter;

/**
 * Writes texts, numbers, flags, lists and groups as a YAML document. A text that YAML would read as
 * something else is quoted, so that it is read back as the text it was.
 */
public final class DocumentText {

  private static final int WIDTH = 100;

  private DocumentText() {}

  public static String write(SequencedMap<String, Object> document) {
    DumpSettings settings =
        DumpSettings.builder()
            .setDefaultFlowStyle(FlowStyle.BLOCK)
            .setWidth(WIDTH)
            .setSplitLines(false)
            .setIndicatorIndent(0)
            .setDereferenceAliases(true)
            .build();
    return new Dump(settings, new QuotingRepresenter(settings)).dumpToString(plain(document));
  }

  /** Quotes a text of several lines, since a block of lines cannot hold every text. */
  private static final class QuotingRepresenter extends StandardRepresenter {
    QuotingRepresenter(DumpSettings settings) {
      super(settings);
    }

    @Override
    protected Node representScalar(Tag tag, String value, ScalarStyle style) {
      boolean lines = value.indexOf('\n') >= 0 || value.indexOf('\r') >= 0;
      return super.representScalar(tag, value, lines ? ScalarStyle.DOUBLE_QUOTED : style);
    }
  }

  private static Object plain(Object value) {
    return switch (value) {
      case Map<?, ?> group -> {
        Map<Object, Object> plain = new LinkedHashMap<>();
        group.forEach((key, inner) -> plain.put(key, plain(inner)));
        yield plain;
      }
      case List<?> list -> list.stream().map(DocumentText::plain).toList();
      // A number with many places is written out, never with an exponent.
      case BigDecimal number -> number.toPlainString();
      default -> value;
    };
  }
}
