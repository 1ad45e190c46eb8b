package org.ysthmos.core.testkit;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.net.URI;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Consumer;
import java.util.stream.LongStream;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.Link;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Person;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** Random inputs that are the same for the same seed; a law that fails names the seed. */
public final class Seeds {

  private static final String[] PIECES = {
    "Fern gully",
    " ",
    "",
    "🌿🪴",
    "e\u0301",
    "Straße",
    "\n",
    "\t",
    "“yesterday”",
    "23 November 2026",
    "29 February 2023",
    "8",
    "11",
    "-3",
    "4.5",
    "0x10",
    "1e9",
    "NaN",
    "{place}",
    "\"",
    "\\",
    "</p>",
    "\u0000",
    "\u202e",
    "日本語",
    "null",
    "2026-11-23",
    "ı",
    "x".repeat(200)
  };

  private final Random random;

  public Seeds(long seed) {
    this.random = new Random(seed);
  }

  /** Runs a law for this many seeds, counted from 1; the failure names the seed. */
  public static void forSeeds(int count, Consumer<Seeds> law) {
    LongStream.rangeClosed(1, count)
        .forEach(
            seed -> {
              try {
                law.accept(new Seeds(seed));
              } catch (RuntimeException | AssertionError e) {
                throw new AssertionError("fails with seed " + seed + ": " + e.getMessage(), e);
              }
            });
  }

  public int below(int bound) {
    return random.nextInt(bound);
  }

  @SafeVarargs
  public final <T> T oneOf(T... choices) {
    return choices[below(choices.length)];
  }

  public String text() {
    StringBuilder text = new StringBuilder();
    for (int i = below(4); i >= 0; i--) {
      text.append(PIECES[below(PIECES.length)]);
    }
    return text.toString();
  }

  public Value value() {
    return switch (below(10)) {
      case 0 -> new Decimal(new BigDecimal(BigInteger.valueOf(random.nextLong()), below(12) - 4));
      case 1 -> new Flag(random.nextBoolean());
      case 2 -> new Day(LocalDate.ofEpochDay(below(60_000) - 20_000));
      case 3 -> new Moment(Instant.ofEpochSecond(below(2_000_000_000), below(1_000_000_000)));
      case 4 -> new Choice(text());
      case 5 -> new Person(text());
      case 6 -> new Link(URI.create("https://a.example/" + below(1000)), text());
      case 7 -> Nothing.NOTHING;
      case 8 -> {
        List<Value> items = new ArrayList<>();
        for (int i = below(4); i > 0; i--) {
          items.add(Text.of(text()));
        }
        yield new ListValue(ValueType.TEXT, items);
      }
      default -> Text.of(text());
    };
  }

  /** A value of this type; a list may be empty. */
  public Value of(ValueType type) {
    return switch (type.kind()) {
      case TEXT -> Text.of(text());
      case NUMBER -> new Decimal(BigDecimal.valueOf(random.nextLong() >> below(63), below(20)));
      case FLAG -> Flag.of(random.nextBoolean());
      case DAY -> new Day(LocalDate.ofEpochDay(below(3_000_000) - 600_000L));
      case MOMENT ->
          Moment.of(Instant.ofEpochSecond(random.nextLong(-60_000_000_000L, 250_000_000_000L)));
      case CHOICE -> new Choice(text());
      case PERSON -> new Person(text());
      case LINK -> Link.of("https://tidewrack.example/" + below(1000));
      case LIST -> {
        ValueType element = type.element().orElseThrow();
        List<Value> items = new ArrayList<>();
        for (int i = below(5); i > 0; i--) {
          items.add(of(element));
        }
        yield new ListValue(element, items);
      }
      case RECORD, NOTHING -> Nothing.NOTHING;
    };
  }

  /** JSON of any shape, not too deep. */
  public JsonNode json(int depth) {
    JsonNodeFactory nodes = JsonNodeFactory.instance;
    return switch (below(depth > 0 ? 8 : 6)) {
      case 0 -> nodes.nullNode();
      case 1 -> nodes.booleanNode(random.nextBoolean());
      case 2 -> nodes.numberNode(random.nextInt());
      case 3 -> nodes.numberNode(new BigDecimal(random.nextDouble()));
      case 4, 5 -> nodes.textNode(text());
      case 6 -> {
        ArrayNode array = nodes.arrayNode();
        for (int i = below(4); i > 0; i--) {
          array.add(json(depth - 1));
        }
        yield array;
      }
      default -> {
        ObjectNode object = nodes.objectNode();
        for (int i = below(4); i > 0; i--) {
          object.set(text(), json(depth - 1));
        }
        yield object;
      }
    };
  }
}
