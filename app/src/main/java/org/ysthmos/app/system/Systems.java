package org.ysthmos.app.system;

import com.fasterxml.jackson.databind.JsonNode;
import jakarta.annotation.PreDestroy;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.ManyPlaces;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.Settings;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.json.TypedReader;
import org.ysthmos.core.load.CircuitBreaker;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.PlaceId;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.ValueType;

/** The connected systems: what they offer, and the gateways to them. */
@Component
public class Systems implements Shapes {

  private static final Logger LOG = LoggerFactory.getLogger(Systems.class);

  /**
   * A system with the gateway that speaks to it.
   *
   * @param breaker keeps it from being called while it does not work
   */
  public record Connected(
      SystemDescription description, SystemGateway gateway, CircuitBreaker breaker) {

    /** How long it is until there is room for all calls that a task there can take. */
    public Duration untilRoom(Instant now) {
      int calls = description.described().mapToInt(SystemCollection::mostCalls).max().orElse(1);
      return gateway.limiter().wait(calls, now);
    }

    /** Takes note of a call that failed. */
    public void note(Failure failure, Instant now) {
      if (failure.noRoom()) {
        breaker.unused();
      } else if (failure.kind().isOfTheSystem()) {
        breaker.failed(failure, now);
      } else {
        breaker.answered();
      }
    }
  }

  /** What a system is made of; as long as it stays the same, so does its gateway. */
  private record Source(String document, List<SystemMapper.AddressRow> addresses) {}

  /** A system whose document cannot be read any more. */
  public record Unreadable(String id, Instant since, String problem) {}

  private final SystemMapper mapper;
  private final Directories directories;
  private final AppClock clock;
  private final TransactionTemplate transaction;
  private final WorkSignals signals;
  private final Surroundings surroundings;
  private final List<SystemGateway> replaced = new ArrayList<>();
  private final Settings.Retry retry;
  private volatile Map<String, Connected> connected = Map.of();
  private volatile Map<String, Source> sources = Map.of();
  private volatile List<Unreadable> unreadable = List.of();

  Systems(
      SystemMapper mapper,
      Directories directories,
      SecretVault secrets,
      AppClock clock,
      TransactionTemplate transaction,
      WorkSignals signals,
      Settings settings) {
    this.mapper = mapper;
    this.directories = directories;
    this.clock = clock;
    this.transaction = transaction;
    this.signals = signals;
    this.retry = settings.retry();
    this.surroundings =
        new Surroundings(secrets::find, clock, settings.outgoing().policy(), settings.drops());
    reload();
  }

  private void reload() {
    Map<String, Connected> fresh = new LinkedHashMap<>();
    Map<String, Source> freshSources = new LinkedHashMap<>();
    List<Unreadable> broken = new ArrayList<>();
    List<SystemMapper.AddressRow> addresses = mapper.addresses();
    for (SystemMapper.SystemRow row : mapper.all()) {
      Source source =
          new Source(
              row.document(),
              addresses.stream().filter(one -> one.systemId().equals(row.id())).toList());
      Connected now = connected.get(row.id());
      try {
        fresh.put(
            row.id(), now != null && source.equals(sources.get(row.id())) ? now : open(source));
        freshSources.put(row.id(), source);
      } catch (DocumentException | IllegalArgumentException e) {
        // One system that cannot be read must not keep the others from working.
        LOG.error("system {} cannot be used: {}", row.id(), e.getMessage());
        broken.add(new Unreadable(row.id(), clock.instant(), String.valueOf(e.getMessage())));
      }
    }
    connected.forEach(
        (id, old) -> {
          if (Optional.ofNullable(fresh.get(id)).filter(old::equals).isEmpty()) {
            replaced.add(old.gateway());
          }
        });
    connected = Map.copyOf(fresh);
    sources = Map.copyOf(freshSources);
    unreadable = List.copyOf(broken);
  }

  private Connected open(Source source) {
    SystemDescription description =
        reached(SystemReader.read(source.document()), source.addresses());
    return new Connected(
        description,
        description.open(surroundings),
        new CircuitBreaker(
            retry.breaker(), retry.first(), retry.longest(), signals.toWatch()::raise));
  }

  /** The systems whose documents cannot be read any more, with what is wrong. */
  public List<Unreadable> unreadable() {
    return unreadable;
  }

  /** The system at the addresses that this installation gives it. */
  private static SystemDescription reached(
      SystemDescription described, List<SystemMapper.AddressRow> addresses) {
    SystemDescription reached = described;
    for (SystemMapper.AddressRow address : addresses) {
      if (address.systemId().equals(described.id())) {
        reached = reached.at(address.which(), URI.create(address.address()));
      }
    }
    return reached;
  }

  /**
   * A system as a document that is not kept yet describes it, at the addresses of this installation
   * unless the document names another place than before.
   *
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public SystemDescription asReached(String document) {
    SystemDescription described = SystemReader.read(document);
    return moved(described) ? described : reached(described, mapper.addresses());
  }

  /** Whether a document names another address than the one that is kept. */
  private boolean moved(SystemDescription described) {
    return document(described.id())
        .filter(kept -> !SystemReader.read(kept).address().equals(described.address()))
        .isPresent();
  }

  /**
   * Adds a system if none of its id is there.
   *
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public synchronized void addIfNew(String document) {
    SystemDescription description = SystemReader.read(document);
    if (!connected.containsKey(description.id())) {
      mapper.add(description.id(), document, clock.instant());
      reload();
    }
  }

  /**
   * Keeps the document of a system, a new one or in place of its earlier one. One that names
   * another address than before is reached there from then on, whatever the installation said.
   *
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public synchronized void put(String document) {
    SystemDescription description = SystemReader.read(document);
    transaction.executeWithoutResult(
        status -> {
          if (moved(description)) {
            mapper.forgetAddress(description.id());
          }
          if (mapper.change(description.id(), document, clock.instant()) == 0) {
            mapper.add(description.id(), document, clock.instant());
          }
        });
    reload();
  }

  /** The documents of all systems as they were written, by id; those that cannot be read too. */
  public Map<String, String> documents() {
    return mapper.all().stream()
        .collect(Collectors.toMap(SystemMapper.SystemRow::id, SystemMapper.SystemRow::document));
  }

  /** Takes a system away that no bridge uses. */
  public synchronized void remove(String id) {
    transaction.executeWithoutResult(
        status -> {
          mapper.remove(id);
          mapper.forgetAddresses(id);
        });
    reload();
  }

  /** Makes several changes, while nobody else makes any. */
  public synchronized void together(Runnable changes) {
    changes.run();
  }

  /** Reads all anew, where what was kept was undone. */
  public synchronized void refresh() {
    reload();
  }

  /** The document of a system as it was written. */
  public Optional<String> document(String id) {
    return Optional.ofNullable(mapper.document(id));
  }

  /**
   * Says where a system is reached.
   *
   * @param which the key under which its document has the address, usually {@code address}
   */
  public synchronized void connect(String id, String which, URI address) {
    mapper.connect(id, which, address.toString());
    reload();
  }

  /** All systems, by id. */
  public List<Connected> all() {
    return connected.values().stream()
        .sorted(Comparator.comparing(system -> system.description().id()))
        .toList();
  }

  public Optional<Connected> find(String id) {
    return Optional.ofNullable(connected.get(id));
  }

  /**
   * How an event would be known to tell of our own writing.
   *
   * @param in the collections that may have been written to
   * @param marks of the state that it tells of
   */
  public record OwnWriting(Set<String> in, List<String> marks) {}

  /** Empty if nothing written from here can come back as this event. */
  public Optional<OwnWriting> ownWriting(Event event) {
    List<String> marks = marks(event);
    if (marks.isEmpty()) {
      return Optional.empty();
    }
    Set<String> in = writtenIn(event);
    return in.isEmpty() ? Optional.empty() : Optional.of(new OwnWriting(in, marks));
  }

  /** The marks of the state that an event tells of; none where its system gives none. */
  public List<String> marks(Event event) {
    return collection(event.system(), event.collection())
        .map(one -> one.marks(event))
        .orElse(List.of());
  }

  /** The collections in which what an event tells of may have been written from here. */
  public Set<String> writtenIn(Event event) {
    Optional<SystemCollection> heard = collection(event.system(), event.collection());
    Stream<SystemCollection> described =
        find(event.system()).stream()
            .flatMap(system -> system.description().collections().values().stream());
    // Of places that are described alike each hears of what is written to itself alone.
    return heard.stream()
        .flatMap(one -> Stream.concat(described, Stream.of(one)))
        .filter(one -> one.makes() || one.changes())
        .filter(one -> heard.get().hearsOf(one))
        .map(one -> one.shape().collection())
        .collect(Collectors.toSet());
  }

  public Optional<SystemCollection> collection(String system, String collection) {
    return find(system).flatMap(found -> collection(found.description(), collection));
  }

  /** A collection as a system describes it; one of many places with the name that was read. */
  public Optional<SystemCollection> collection(SystemDescription system, String collection) {
    return Optional.ofNullable(system.collections().get(collection))
        .or(
            () ->
                PlaceId.parse(collection)
                    .flatMap(
                        place ->
                            system
                                .manyOf(collection)
                                .map(many -> place(system, many, place.place()))));
  }

  /** Those that are described like a collection, where it is one of many places. */
  public Optional<ManyPlaces> manyOf(String system, String collection) {
    return find(system).flatMap(found -> found.description().manyOf(collection));
  }

  private SystemCollection place(SystemDescription system, ManyPlaces many, String place) {
    return directories
        .name(system.id(), many.directory(), place)
        .map(name -> many.at(place, name))
        .orElseGet(() -> many.at(place));
  }

  /**
   * All collections of a system by id: those that are described one by one, and the places that it
   * had when its directories were read last.
   */
  public SequencedMap<String, SystemCollection> collectionsOf(SystemDescription system) {
    SequencedMap<String, SystemCollection> all = new LinkedHashMap<>(system.collections());
    system
        .many()
        .forEach(
            (of, many) ->
                directories
                    .names(system.id(), many.directory())
                    .forEach(
                        (id, name) ->
                            all.put(new PlaceId(of, id).collection(), many.at(id, name))));
    return all;
  }

  @Override
  public Optional<CollectionShape> find(String system, String collection) {
    return collection(system, collection).map(SystemCollection::able).map(directories::named);
  }

  @Override
  public Set<String> systems() {
    return Set.copyOf(connected.keySet());
  }

  @Override
  public Set<String> collections(String system) {
    return find(system)
        .map(found -> Set.copyOf(collectionsOf(found.description()).keySet()))
        .orElse(Set.of());
  }

  /** What a delivery does, as its collection takes it. */
  public EffectKind kindOf(PlannedDelivery planned) {
    if (planned.removes()) {
      return EffectKind.REMOVE;
    }
    if (planned.record().isPresent()) {
      return EffectKind.CHANGE;
    }
    return collection(planned.system(), planned.collection())
            .filter(SystemCollection::takesMessages)
            .isPresent()
        ? EffectKind.MESSAGE
        : EffectKind.CREATE;
  }

  /** When a record was changed last, by its system's own time; empty if it does not say. */
  public Optional<Instant> changedAt(String system, String collection, JsonNode record) {
    return collection(system, collection)
        .flatMap(SystemCollection::changedAt)
        .map(at -> TypedReader.read(at.in(record), ValueType.MOMENT))
        .filter(Moment.class::isInstance)
        .map(moment -> ((Moment) moment).instant());
  }

  /** The page on which a person sees a record, if the system has one. */
  public Optional<URI> page(String system, String collection, String record) {
    return find(system)
        .flatMap(
            found ->
                collection(system, collection)
                    .flatMap(SystemCollection::page)
                    .map(
                        page ->
                            URI.create(
                                found.description().address() + page.replace("{id}", record))));
  }

  @PreDestroy
  void close() {
    replaced.forEach(SystemGateway::close);
    connected.values().forEach(old -> old.gateway().close());
  }
}
