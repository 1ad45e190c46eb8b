package org.ysthmos.app.bridge;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.loop.Circle;
import org.ysthmos.core.loop.Circle.End;
import org.ysthmos.core.loop.Circles;
import org.ysthmos.core.loop.Tells;

/** Circles of live bridges, and that none goes live that would run for ever. */
@Component
public class Loops implements Tells {

  private static final int LONGEST_YES = 4000;

  private final Bridges bridges;
  private final Systems systems;
  private final Catalog catalog;

  Loops(Bridges bridges, Systems systems, Catalog catalog) {
    this.bridges = bridges;
    this.systems = systems;
    this.catalog = catalog;
  }

  /** What is polled holds its version where our answers hold it; of webhooks that is not known. */
  @Override
  public boolean knowsOwnWriting(CollectionRef at) {
    return systems
        .collection(at.system(), at.collection())
        .filter(one -> one.polled().isPresent() && one.push().isEmpty())
        .isPresent();
  }

  @Override
  public boolean makingIsChanging(CollectionRef at) {
    return systems
        .collection(at.system(), at.collection())
        .filter(one -> one.makes() && one.mostCalls() > 1)
        .map(SystemCollection::kinds)
        .filter(kinds -> kinds.contains("changed"))
        .isPresent();
  }

  private List<Circle> circles(BridgeVersion bridge) {
    return Circles.through(
        bridge, bridges.live().stream().map(Bridges.Live::version).toList(), this);
  }

  /** The circles that a bridge would be in if it were live. */
  public List<CircleView> of(BridgeVersion bridge) {
    return circles(bridge).stream().map(this::view).toList();
  }

  /** The circles that a live bridge is in; none if it is not live. */
  public List<CircleView> of(String bridge) {
    return bridges.live(bridge).map(live -> of(live.version())).orElse(List.of());
  }

  /**
   * Puts a document to work for a person, unless it would run in a circle for ever. One at a time,
   * so that no two make a circle together that neither makes alone.
   *
   * @param accepted whether the person says yes to circles of which it cannot be told whether they
   *     come to an end
   * @throws ApiProblem if there is one that does not stop, or one that was not said yes to
   */
  public synchronized BridgeVersion putToWork(String document, boolean accepted, By by) {
    BridgeVersion version = BridgeCompiler.compile(document, 1, catalog);
    List<CircleView> all = of(version);
    all.stream()
        .filter(one -> one.end() == End.DOES_NOT_STOP)
        .findFirst()
        .ifPresent(
            one -> {
              throw refused(
                  "It would feed itself",
                  one,
                  "Add a condition that its own writing does not meet, or let it not hear of its own writing.");
            });
    List<CircleView> open = all.stream().filter(one -> one.end() == End.CANNOT_BE_TOLD).toList();
    if (!open.isEmpty() && !accepted) {
      throw refused(
          "It may feed itself",
          open.getFirst(),
          "Say yes to it if you know that it comes to an end; its ceiling holds it if it does not.");
    }
    String yes = open.stream().map(CircleView::sentence).collect(Collectors.joining("\n"));
    return bridges.put(document, by, yes.substring(0, Math.min(yes.length(), LONGEST_YES)));
  }

  /** Makes several changes of bridges, while nobody else makes any. */
  public synchronized void together(Runnable changes) {
    bridges.together(changes);
  }

  private static ApiProblem refused(String title, CircleView circle, String todo) {
    return new ApiProblem(
        HttpStatus.CONFLICT,
        title,
        "%s %s %s".formatted(circle.sentence(), String.join(" ", circle.because()), todo));
  }

  /** The places of the shortest circle of a live bridge that may not come to an end, named. */
  public List<String> wayBack(String bridge) {
    return endless(bridge)
        .map(
            circle ->
                Stream.concat(
                        Stream.of(circle.from()),
                        circle.turns().stream().map(CircleView.TurnView::to))
                    .toList())
        .orElse(List.of());
  }

  /** The bridges that carry along that circle; none if there is none. */
  public List<String> alongTheWay(String bridge) {
    return endless(bridge)
        .map(circle -> circle.turns().stream().map(CircleView.TurnView::bridge).toList())
        .orElse(List.of());
  }

  private Optional<CircleView> endless(String bridge) {
    return of(bridge).stream().filter(circle -> circle.end() != End.STOPS).findFirst();
  }

  private CircleView view(Circle circle) {
    List<CircleView.TurnView> turns =
        circle.turns().stream()
            .map(
                turn ->
                    new CircleView.TurnView(
                        turn.bridge(), turn.name(), turn.effect(), name(turn.to())))
            .toList();
    String from = name(circle.from());
    String way =
        turns.stream()
            .map(turn -> "“%s” to %s".formatted(turn.name(), turn.to()))
            .collect(Collectors.joining(", then by "));
    return new CircleView(
        "What is in %s goes by %s and so comes back.".formatted(from, way),
        from,
        turns,
        circle.end(),
        circle.because());
  }

  private String name(CollectionRef at) {
    return systems
        .find(at.system())
        .map(one -> one.description().name())
        .map(
            name ->
                systems
                    .collection(at.system(), at.collection())
                    .map(one -> one.shape().name() + " of " + name)
                    .orElse(name))
        .orElse(at.toString());
  }
}
