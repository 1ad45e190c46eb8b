package org.ysthmos.core.impact;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.PlaceId;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.uses.Thing;

/**
 * Writes a bridge for a field that has another key from now on.
 *
 * <p>A text of the document may be the field's key by accident. Which of them name the field is
 * asked of the compiler: each is replaced by itself by a key that nothing has, and counts if the
 * bridge names that then. So there is no second knowledge of where a document can name a field.
 */
public final class Renaming {

  private static final String IN_LIST = "/*";

  /** A key that no field has; what names it now named the field before. */
  private static final String PROBE = "any-other-field-of-no-name";

  private final Thing field;
  private final Thing probed;
  private final String probe;
  private final Catalog withProbe;
  private final Catalog withNew;
  private final Pattern form;
  private final Pattern slot;
  private final String to;

  /**
   * @param field as it is called now
   * @param to its key from now on, of the same form: an address stays one
   * @param catalog in which it is called as now
   */
  private Renaming(Thing field, String to, Catalog catalog) {
    String from = own(field.id());
    this.field = field;
    this.to = to;
    this.probe = from.startsWith("/") ? "/" + PROBE : PROBE;
    this.probed =
        Thing.field(
            field.system(),
            field.collection(),
            field.id().substring(0, field.id().length() - from.length()) + probe);
    this.withProbe = with(catalog, shape -> shaped(shape, this::probed));
    this.withNew = with(catalog, shape -> shaped(shape, this::renamed));
    // A plain key is an address, too, where a record is read whole.
    String root = from.startsWith("/") ? "([a-z0-9-]*)" : "((?:[a-z0-9-]*/)?)";
    this.form = Pattern.compile(root + Pattern.quote(from));
    this.slot = Pattern.compile("\\{\\s*" + form + "\\s*\\}");
  }

  /**
   * The document for a field that has another key.
   *
   * @param document of a bridge that can be used with the catalog
   * @param field a field that it names
   * @param to its key from now on
   * @throws DocumentException if the bridge could not be used with it, which is told as of the
   *     document that it would be
   */
  public static JsonNode rewritten(JsonNode document, Thing field, String to, Catalog catalog) {
    return new Renaming(field, to, catalog).rewritten(document);
  }

  /** Whether a key can take the place of another: an address of an address, a key of a key. */
  public static boolean fits(Thing field, String to) {
    String from = own(field.id());
    return !to.equals(from)
        && (from.startsWith("/") ? to.matches("(/[^/{}\\s]+)+") : to.matches("[^/{}\\s]+"));
  }

  /** The key of a field by itself, without that of the list in whose records it stands. */
  private static String own(String id) {
    int list = id.indexOf(IN_LIST);
    return list < 0 ? id : id.substring(list + IN_LIST.length());
  }

  private JsonNode rewritten(JsonNode document) {
    Walk looking = new Walk(Set.of(), probe);
    JsonNode unused = looking.node(document);
    Set<Integer> naming =
        IntStream.range(0, looking.found)
            .filter(one -> names(new Walk(Set.of(one), probe).node(document)))
            .boxed()
            .collect(Collectors.toSet());
    JsonNode all = new Walk(naming, to).node(document);
    BridgeVersion unusedVersion = BridgeCompiler.compile(all.toString(), 1, withNew);
    return all;
  }

  /** Whether a bridge names what the field is called to find out. */
  private boolean names(JsonNode document) {
    try {
      return BridgeCompiler.compile(document.toString(), 1, withProbe).uses().stream()
          .anyMatch(use -> use.thing().equals(probed));
    } catch (DocumentException e) {
      return false;
    }
  }

  /** Goes over all texts of a document, and replaces some of those that look like the field. */
  private final class Walk {
    private final Set<Integer> taken;
    private final String by;
    private int found;

    /**
     * @param taken the numbers of those that are replaced, in the order of the document
     * @param by what they are replaced by
     */
    Walk(Set<Integer> taken, String by) {
      this.taken = taken;
      this.by = by;
    }

    private JsonNode node(JsonNode node) {
      return switch (node) {
        case ObjectNode group -> group(group);
        case ArrayNode list -> list(list);
        case TextNode text -> TextNode.valueOf(text(text.textValue()));
        default -> node;
      };
    }

    private JsonNode group(ObjectNode group) {
      ObjectNode walked = JsonNodeFactory.instance.objectNode();
      for (Map.Entry<String, JsonNode> entry : group.properties()) {
        String key = text(entry.getKey());
        walked.set(key, node(entry.getValue()));
      }
      return walked;
    }

    private JsonNode list(ArrayNode list) {
      ArrayNode walked = JsonNodeFactory.instance.arrayNode();
      list.forEach(item -> walked.add(node(item)));
      return walked;
    }

    private String text(String text) {
      Matcher whole = form.matcher(text);
      if (whole.matches()) {
        return isTaken() ? whole.group(1) + by : text;
      }
      // A text with slots, such as {report/place}.
      return slot.matcher(text)
          .replaceAll(
              match ->
                  Matcher.quoteReplacement(
                      isTaken() ? "{" + match.group(1) + by + "}" : match.group()));
    }

    private boolean isTaken() {
      int number = found;
      found++;
      return taken.contains(number);
    }
  }

  private CollectionShape shaped(CollectionShape shape, UnaryOperator<List<FieldShape>> change) {
    return shape
        .withFields(change.apply(shape.fields()))
        .withEventFields(change.apply(shape.eventFields()));
  }

  /** With the probe beside the field; neither need be there, as one of both may be left out. */
  private List<FieldShape> probed(List<FieldShape> fields) {
    return changed(
        fields,
        beside ->
            beside.stream()
                .flatMap(
                    one ->
                        isIt(one)
                            ? Stream.of(
                                one.withRequired(false), one.withKey(probe).withRequired(false))
                            : Stream.of(one))
                .toList());
  }

  /** Without the field, and with its new one, unless that is there already. */
  private List<FieldShape> renamed(List<FieldShape> fields) {
    return changed(
        fields,
        beside -> {
          boolean there = beside.stream().anyMatch(one -> one.key().equals(to));
          return beside.stream()
              .filter(one -> !there || !isIt(one))
              .map(one -> isIt(one) ? one.withKey(to) : one)
              .toList();
        });
  }

  private boolean isIt(FieldShape one) {
    return one.key().equals(own(field.id()));
  }

  /** The fields with those among which the field stands changed. */
  private List<FieldShape> changed(
      List<FieldShape> fields, UnaryOperator<List<FieldShape>> change) {
    int list = field.id().indexOf(IN_LIST);
    if (list < 0) {
      return change.apply(fields);
    }
    String key = field.id().substring(0, list);
    return fields.stream()
        .map(one -> one.key().equals(key) ? one.withFields(change.apply(one.fields())) : one)
        .toList();
  }

  private Catalog with(Catalog catalog, UnaryOperator<CollectionShape> change) {
    return catalog.with(
        new Shapes() {
          @Override
          public Optional<CollectionShape> find(String system, String collection) {
            Optional<CollectionShape> now = catalog.collection(system, collection);
            // What is described once is called otherwise at each of its places.
            return system.equals(field.system()) && PlaceId.areAlike(collection, field.collection())
                ? now.map(change)
                : now;
          }

          @Override
          public Set<String> systems() {
            return catalog.systems();
          }

          @Override
          public Set<String> collections(String system) {
            return catalog.collections(system);
          }
        });
  }
}
