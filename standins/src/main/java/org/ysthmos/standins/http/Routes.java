package org.ysthmos.standins.http;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Which handler answers which method and path; a path may hold slots, {@code /tasks/{id}}, and end
 * in one for all that follows, {@code /files/{*path}}.
 */
public final class Routes {

  /** Answers a request, or throws a {@link Refusal}. */
  @FunctionalInterface
  public interface Handler {
    Reply answer(Request request);
  }

  record Route(String method, List<String> segments, boolean needsToken, Handler handler) {}

  record Match(Route route, Map<String, String> slots) {}

  private final List<Route> routes = new ArrayList<>();

  /** A page or address that anyone may open. */
  public Routes open(String method, String path, Handler handler) {
    routes.add(new Route(method, segments(path), false, handler));
    return this;
  }

  /** An address that needs a token. */
  public Routes signedIn(String method, String path, Handler handler) {
    routes.add(new Route(method, segments(path), true, handler));
    return this;
  }

  List<Match> matching(String path) {
    List<String> found = segments(path);
    List<Match> matches = new ArrayList<>();
    for (Route route : routes) {
      Map<String, String> slots = new LinkedHashMap<>();
      if (fits(route.segments(), found, slots)) {
        matches.add(new Match(route, slots));
      }
    }
    return matches;
  }

  private static boolean fits(List<String> wanted, List<String> found, Map<String, String> slots) {
    boolean open = wanted.getLast().startsWith("{*") && found.size() >= wanted.size();
    if (wanted.size() != found.size() && !open) {
      return false;
    }
    for (int i = 0; i < wanted.size(); i++) {
      String want = wanted.get(i);
      if (want.startsWith("{*")) {
        slots.put(
            want.substring(2, want.length() - 1), String.join("/", found.subList(i, found.size())));
      } else if (want.startsWith("{")) {
        slots.put(want.substring(1, want.length() - 1), found.get(i));
      } else if (!want.equals(found.get(i))) {
        return false;
      }
    }
    return true;
  }

  private static List<String> segments(String path) {
    return List.of(path.split("/", -1));
  }
}
