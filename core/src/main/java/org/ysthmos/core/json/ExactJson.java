package org.ysthmos.core.json;

import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.cfg.JsonNodeFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.math.BigDecimal;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Text;

/**
 * JSON whose numbers are what was written. RFC 8259 section 6 sets no bound on them and warns of
 * readers that take them for binary floating point, in which 19.999999999999999999 is 20 and 1e400
 * is no number at all.
 */
public final class ExactJson {

  private ExactJson() {}

  /** Reads numbers with a fraction or an exponent digit by digit. */
  public static JsonMapper mapper() {
    return exact(JsonMapper.builder()).build();
  }

  /** The same of a mapper that has more to say. */
  public static JsonMapper.Builder exact(JsonMapper.Builder builder) {
    return builder
        .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
        .disable(JsonNodeFeature.STRIP_TRAILING_BIGDECIMAL_ZEROES);
  }

  /**
   * A number, a flag or a text as text: a number in plain digits, as many as were written, or a
   * problem if that is more than a number may have.
   */
  static Computed text(JsonNode node) {
    if (!node.isNumber()) {
      return Text.of(node.asText());
    }
    BigDecimal number = node.decimalValue();
    return Decimal.checked(number) instanceof Decimal
        ? Text.of(number.toPlainString())
        : Decimal.checked(number);
  }
}
