package org.ysthmos.core.document;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.api.lowlevel.Parse;
import org.snakeyaml.engine.v2.events.AliasEvent;
import org.snakeyaml.engine.v2.events.Event;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/**
 * One place in a YAML document: a text, a list or a group of keys. Every reading method says what
 * it expected and where when it finds something else, as a {@link DocumentException}.
 */
public final class DocumentNode {

  /** The largest document taken, in characters. */
  public static final int LARGEST = 200_000;

  /** How many levels a document may be nested; a bridge needs about ten. */
  public static final int DEEPEST = 100;

  private static final Pattern ID = Pattern.compile("[a-z0-9]+(-[a-z0-9]+)*");

  private static final Pattern SCHEME = Pattern.compile("[a-z][a-z0-9+.-]*");
  private static final List<String> RUNNING = List.of("javascript", "vbscript", "data");

  private final Node node;
  private final String path;

  private DocumentNode(Node node, String path) {
    this.node = node;
    this.path = path;
  }

  /**
   * @throws DocumentException if the text is no YAML, holds no document, or is larger than {@link
   *     #LARGEST}
   */
  public static DocumentNode parse(String yaml) {
    if (yaml.length() > LARGEST) {
      throw problemAt("", 0, 0, "the document is larger than " + LARGEST + " characters");
    }
    LoadSettings settings =
        LoadSettings.builder().setMaxAliasesForCollections(0).setAllowDuplicateKeys(false).build();
    try {
      Node root =
          new Compose(settings)
              .composeString(yaml)
              .orElseThrow(() -> problemAt("", 1, 1, "the document is empty"));
      if (depth(root) > DEEPEST) {
        throw tooDeep();
      }
      DocumentNode document = new DocumentNode(root, "");
      document.refuseRepeatedKeys();
      return document;
    } catch (StackOverflowError deeperThanTheReaderGoes) {
      throw tooDeep();
    } catch (MarkedYamlEngineException e) {
      Optional<Mark> mark = e.getProblemMark();
      throw problemAt(
          "",
          mark.map(m -> m.getLine() + 1).orElse(0),
          mark.map(m -> m.getColumn() + 1).orElse(0),
          "this is not YAML: " + e.getProblem());
    } catch (YamlEngineException e) {
      throw alias(yaml, settings)
          .orElseGet(() -> problemAt("", 0, 0, "this is not YAML: " + e.getMessage()));
    }
  }

  /** The first alias of the text, which stands for a list or a group that stands elsewhere. */
  private static Optional<DocumentException> alias(String yaml, LoadSettings settings) {
    for (Event event : new Parse(settings).parseString(yaml)) {
      if (event instanceof AliasEvent alias) {
        return alias
            .getStartMark()
            .map(
                mark ->
                    problemAt(
                        "",
                        mark.getLine() + 1,
                        mark.getColumn() + 1,
                        "“*%s” stands for something written elsewhere; write it out here"
                            .formatted(alias.getAlias())));
      }
    }
    return Optional.empty();
  }

  /** A key that stands twice would silently lose what stands under one of them. */
  private void refuseRepeatedKeys() {
    Problems problems = new Problems();
    repeatedKeys(problems);
    problems.refuse();
  }

  private void repeatedKeys(Problems problems) {
    if (node instanceof SequenceNode) {
      list().forEach(item -> item.repeatedKeys(problems));
    } else if (node instanceof MappingNode mapping) {
      Map<String, DocumentProblem> first = new HashMap<>();
      for (NodeTuple tuple : mapping.getValue()) {
        if (tuple.getKeyNode() instanceof ScalarNode key) {
          DocumentNode at = new DocumentNode(key, join(key.getValue()));
          DocumentProblem here = at.problem("");
          DocumentProblem before = first.putIfAbsent(key.getValue(), here);
          if (before != null) {
            problems.add(
                at.problem(
                    "the key “%s” stands twice in this group, in line %d, too; leave one out"
                        .formatted(key.getValue(), before.line())));
          }
          new DocumentNode(tuple.getValueNode(), join(key.getValue())).repeatedKeys(problems);
        }
      }
    }
  }

  private static DocumentException tooDeep() {
    return problemAt("", 0, 0, "the document is nested more than " + DEEPEST + " levels deep");
  }

  /** How many levels a document is nested; without recursion, which it could exhaust. */
  private static int depth(Node root) {
    int deepest = 0;
    List<Node> level = List.of(root);
    while (!level.isEmpty() && deepest <= DEEPEST) {
      deepest++;
      List<Node> next = new ArrayList<>();
      for (Node node : level) {
        if (node instanceof SequenceNode sequence) {
          next.addAll(sequence.getValue());
        } else if (node instanceof MappingNode mapping) {
          mapping.getValue().forEach(tuple -> next.add(tuple.getValueNode()));
        }
      }
      level = next;
    }
    return deepest;
  }

  private static DocumentException problemAt(String path, int line, int column, String message) {
    return new DocumentException(List.of(new DocumentProblem(path, line, column, message)));
  }

  /** The same with a value in place of a slot, such as {@code {place}}, in each of its texts. */
  public DocumentNode filled(String slot, String value) {
    return new DocumentNode(filled(node, "{" + slot + "}", value), path);
  }

  private static Node filled(Node node, String slot, String value) {
    return switch (node) {
      case ScalarNode scalar when scalar.getValue().contains(slot) ->
          new ScalarNode(
              scalar.getTag(),
              true,
              scalar.getValue().replace(slot, value),
              scalar.getScalarStyle(),
              scalar.getStartMark(),
              scalar.getEndMark());
      case SequenceNode sequence ->
          new SequenceNode(
              sequence.getTag(),
              true,
              sequence.getValue().stream().map(item -> filled(item, slot, value)).toList(),
              sequence.getFlowStyle(),
              sequence.getStartMark(),
              sequence.getEndMark());
      case MappingNode mapping ->
          new MappingNode(
              mapping.getTag(),
              true,
              mapping.getValue().stream()
                  .map(
                      one ->
                          new NodeTuple(one.getKeyNode(), filled(one.getValueNode(), slot, value)))
                  .toList(),
              mapping.getFlowStyle(),
              mapping.getStartMark(),
              mapping.getEndMark());
      default -> node;
    };
  }

  public DocumentProblem problem(String message) {
    int line = node.getStartMark().map(m -> m.getLine() + 1).orElse(0);
    int column = node.getStartMark().map(m -> m.getColumn() + 1).orElse(0);
    return new DocumentProblem(path, line, column, message);
  }

  public DocumentException refuse(String message) {
    return new DocumentException(List.of(problem(message)));
  }

  public String path() {
    return path;
  }

  public boolean isText() {
    return node instanceof ScalarNode;
  }

  public boolean isList() {
    return node instanceof SequenceNode;
  }

  public boolean isGroup() {
    return node instanceof MappingNode;
  }

  /** A scalar as it is written, numbers and flags included. */
  public String text() {
    if (node instanceof ScalarNode scalar) {
      return scalar.getValue();
    }
    throw refuse("expected a text here, found " + kindWord());
  }

  public int wholeNumber() {
    String text = text();
    try {
      return Integer.parseInt(text);
    } catch (NumberFormatException e) {
      throw refuse("expected a whole number here, found “" + text + "”");
    }
  }

  /** A decimal number, exact. */
  public BigDecimal number() {
    try {
      return new BigDecimal(text());
    } catch (NumberFormatException e) {
      throw refuse("“" + text() + "” is no number");
    }
  }

  /** The text here, read by a function that refuses with an {@link IllegalArgumentException}. */
  public <T> T parsed(Function<String, T> parse) {
    try {
      return parse.apply(text());
    } catch (IllegalArgumentException e) {
      throw refuse(String.valueOf(e.getMessage()));
    }
  }

  /** A short name that stays: lower case with hyphens, at most 64 characters. */
  public String id() {
    String text = text();
    if (!isId(text)) {
      throw refuse("“" + text + "” is no id: lower case with hyphens, at most 64 characters");
    }
    return text;
  }

  /** Whether a text is lower case with hyphens and has at most 64 characters. */
  public static boolean isId(String text) {
    return ID.matcher(text).matches() && text.length() <= 64;
  }

  /** One of the words of an enum, in lower case with hyphens. */
  public <E extends Enum<E>> E word(Class<E> kind) {
    Map<String, E> words = new LinkedHashMap<>();
    for (E one : kind.getEnumConstants()) {
      words.put(wordOf(one), one);
    }
    E found = words.get(text());
    if (found == null) {
      throw refuse(Nearest.unknown("word here", text(), words.keySet()));
    }
    return found;
  }

  /** How documents write a member of an enum: lower case with hyphens. */
  public static String wordOf(Enum<?> member) {
    return member.name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  /** A list of texts, or one text where a list of one is meant. */
  public List<String> texts() {
    return isList() ? list().stream().map(DocumentNode::text).toList() : List.of(text());
  }

  /** Schemes of links, without a colon and in small letters (RFC 3986 section 3.1). */
  public List<String> schemes() {
    return texts().stream().map(this::scheme).toList();
  }

  private String scheme(String written) {
    String scheme = written.toLowerCase(Locale.ROOT);
    if (!SCHEME.matcher(scheme).matches()) {
      throw refuse("“" + written + "” is no scheme; write it without its colon, for example sftp");
    }
    if (RUNNING.contains(scheme)) {
      throw refuse("“" + written + "” would run a program on a click and is never carried");
    }
    return scheme;
  }

  /** True or false; in quotes too, as it comes from the desk, where every scalar is a text. */
  public boolean flag() {
    if (node instanceof ScalarNode scalar && List.of("true", "false").contains(scalar.getValue())) {
      return scalar.getValue().equals("true");
    }
    throw refuse("expected true or false here, found " + kindWord());
  }

  public List<DocumentNode> list() {
    if (!(node instanceof SequenceNode sequence)) {
      throw refuse("expected a list here, found " + kindWord());
    }
    List<DocumentNode> items = new ArrayList<>();
    for (Node item : sequence.getValue()) {
      items.add(new DocumentNode(item, join(Integer.toString(items.size()))));
    }
    return items;
  }

  /** The keys and what stands under them, in the order of the document. */
  public SequencedMap<String, DocumentNode> group() {
    if (!(node instanceof MappingNode mapping)) {
      throw refuse("expected a group of keys here, found " + kindWord());
    }
    SequencedMap<String, DocumentNode> entries = new LinkedHashMap<>();
    for (NodeTuple tuple : mapping.getValue()) {
      String key = new DocumentNode(tuple.getKeyNode(), path).text();
      entries.put(key, new DocumentNode(tuple.getValueNode(), join(key)));
    }
    return entries;
  }

  /** Reads every item of a list; what is wrong with any of them is told at once. */
  public <T> List<T> each(Function<DocumentNode, T> read) {
    Problems problems = new Problems();
    List<T> all = new ArrayList<>();
    list().forEach(item -> problems.part(() -> read.apply(item)).ifPresent(all::add));
    problems.refuse();
    return all;
  }

  /** A group that may hold these keys and no others; an unknown one names the nearest known. */
  public DocumentNode only(String... known) {
    Problems problems = new Problems();
    group()
        .forEach(
            (key, under) -> {
              if (!List.of(known).contains(key)) {
                problems.add(under.problem(Nearest.unknown("key", key, List.of(known))));
              }
            });
    problems.refuse();
    return this;
  }

  public Optional<DocumentNode> get(String key) {
    return Optional.ofNullable(group().get(key));
  }

  public DocumentNode need(String key) {
    return get(key).orElseThrow(() -> refuse("“" + key + "” is missing here"));
  }

  /** The one entry of a group that must hold just one, such as a step with its options. */
  public Map.Entry<String, DocumentNode> single() {
    SequencedMap<String, DocumentNode> entries = group();
    if (entries.size() != 1) {
      throw refuse("expected one key here, found " + entries.size() + ": " + entries.keySet());
    }
    return entries.firstEntry();
  }

  /**
   * The place that a path below this one leads to, or the deepest place on its way that is there.
   * Where a group holds one key, such as a step with its options, the path may leave that key out.
   */
  public DocumentNode nearest(String below) {
    DocumentNode at = this;
    for (String token : below.isEmpty() ? new String[0] : below.split("/", -1)) {
      Optional<DocumentNode> next = at.child(token);
      if (next.isEmpty() && at.isGroup() && at.group().size() == 1) {
        DocumentNode only = at.group().firstEntry().getValue();
        next = only.child(token).or(() -> Optional.of(only));
      }
      at = next.orElse(at);
    }
    return at;
  }

  private Optional<DocumentNode> child(String token) {
    if (isGroup()) {
      return get(token);
    }
    if (isList() && token.chars().allMatch(c -> c >= '0' && c <= '9')) {
      List<DocumentNode> items = list();
      int place = Integer.parseInt(token);
      return place < items.size() ? Optional.of(items.get(place)) : Optional.empty();
    }
    return Optional.empty();
  }

  private String join(String key) {
    return path.isEmpty() ? key : path + "/" + key;
  }

  private String kindWord() {
    return switch (node) {
      case SequenceNode list -> "a list";
      case MappingNode group -> "a group of keys";
      case ScalarNode scalar -> "“" + scalar.getValue() + "”";
      default -> "something else";
    };
  }
}
