package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The collections that the paths of a description hint at, each under a name of its own. */
final class CollectionPaths {

  private static final Pattern OF_ONE = Pattern.compile("(.+)/\\{([^{}]+)}");

  private final OpenApiTree api;
  private final Map<String, CollectionDraft> drafts = new LinkedHashMap<>();

  private CollectionPaths(OpenApiTree api) {
    this.api = api;
  }

  static List<CollectionDraft> all(OpenApiTree api) {
    CollectionPaths paths = new CollectionPaths(api);
    api.paths().forEach(paths::ofOne);
    api.paths().forEach(paths::ofMany);
    List<CollectionDraft> all = List.copyOf(paths.drafts.values());
    name(all);
    return all;
  }

  /** A path of one record, with the path of many above it. */
  private void ofOne(String path, JsonNode item) {
    Matcher ofOne = OF_ONE.matcher(path);
    if (ofOne.matches() && (item.has("get") || item.has("patch") || item.has("put"))) {
      String above = ofOne.group(1);
      JsonNode many = api.paths().getOrDefault(above, MissingNode.getInstance());
      drafts.put(above, new CollectionDraft(api, above, many, path, ofOne.group(2), item));
    }
  }

  private void ofMany(String path, JsonNode item) {
    if (drafts.containsKey(path) || OF_ONE.matcher(path).matches()) {
      return;
    }
    Optional<ListDraft> list = ListDraft.of(api, path, item);
    Optional<CollectionDraft> same =
        list.flatMap(
            found -> drafts.values().stream().filter(draft -> draft.holdsSame(found)).findFirst());
    if (same.isPresent()) {
      same.get().add(list.get());
    } else if (list.isPresent() || api.body(item.path("post")).isPresent()) {
      drafts.put(path, new CollectionDraft(api, path, item, "", "", MissingNode.getInstance()));
    }
  }

  /**
   * Paths may end alike: the shortest keeps the name, and the others take what stands before it
   * too.
   */
  private static void name(List<CollectionDraft> drafts) {
    List<CollectionDraft> shortest = new ArrayList<>(drafts);
    shortest.sort(Comparator.comparingInt(draft -> draft.path().length()));
    Set<String> taken = new HashSet<>();
    for (CollectionDraft draft : shortest) {
      String name = draft.id();
      if (taken.contains(name)) {
        name = longer(draft.path());
      }
      String unique = name;
      for (int i = 2; taken.contains(unique); i++) {
        unique = name + "-" + i;
      }
      taken.add(unique);
      draft.called(unique);
    }
  }

  /** The last two names of a path: {@code /shops/{id}/orders} gives {@code shops-orders}. */
  private static String longer(String path) {
    String[] names = path.replaceAll("/\\{[^{}]+}", "").replaceFirst("^/", "").split("/", -1);
    String before = names.length > 1 ? names[names.length - 2] + " " : "";
    return SystemDraft.id(FieldDraft.words(before + names[names.length - 1]));
  }
}
