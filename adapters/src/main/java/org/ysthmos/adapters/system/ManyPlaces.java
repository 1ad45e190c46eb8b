package org.ysthmos.adapters.system;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.PlaceId;

/**
 * Places of a system that are described alike, such as all its lists: each is a collection of its
 * own, made of one description in which {@code {place}} stands for its id.
 */
public final class ManyPlaces {

  /** Where the id of a place stands in what describes it. */
  private static final String SLOT = "place";

  /** A place that shows what all have in common; there need not be one that is called so. */
  private static final String ANY = "any";

  /** How many are kept ready; of a system that has more, the rest is made anew each time. */
  private static final int MOST_READY = 2000;

  /** Reads one collection. */
  @FunctionalInterface
  public interface CollectionReader {
    SystemCollection read(Collected of, DocumentNode node);
  }

  private record Place(String id, String name) {}

  private final Collected of;
  private final DocumentNode node;
  private final CollectionReader reader;
  private final String directory;
  private final String name;
  private final Map<Place, SystemCollection> ready = new ConcurrentHashMap<>();

  private ManyPlaces(Collected of, DocumentNode node, CollectionReader reader) {
    this.of = of;
    this.node = node;
    this.reader = reader;
    this.directory = node.need("places").text();
    this.name = node.need("name").text();
  }

  /**
   * @throws org.ysthmos.core.document.DocumentException if they cannot be used, so that it is told
   *     when they are described and not when a place appears
   */
  public static ManyPlaces read(Collected of, DocumentNode node, CollectionReader reader) {
    ManyPlaces places = new ManyPlaces(of, node, reader);
    if (places.any().push().filter(told -> told.place().isEmpty()).isPresent()) {
      throw node.need("push")
          .refuse(
              "all places tell at one address; say where the id of the place stands, as place: /list");
    }
    return places;
  }

  /** The id under which they are described. */
  public String id() {
    return of.id();
  }

  /** The directory in which the system says which there are. */
  public String directory() {
    return directory;
  }

  /** What people call them all. */
  public String name() {
    return name;
  }

  /** What all of them have in common. */
  public SystemCollection any() {
    return at(ANY);
  }

  /** One of them, of which is not known what people call it. */
  public SystemCollection at(String place) {
    return at(place, name + " " + place);
  }

  /** One of them, by its id and what people call it. */
  public SystemCollection at(String place, String called) {
    Place which = new Place(place, called);
    SystemCollection made = ready.get(which);
    if (made == null) {
      made = make(which);
      if (ready.size() < MOST_READY) {
        ready.put(which, made);
      }
    }
    return made;
  }

  private SystemCollection make(Place place) {
    PlaceId id = new PlaceId(of.id(), place.id());
    return reader.read(
        new Collected(of.system(), of.systemName(), id.collection(), Optional.of(place.name())),
        node.filled(SLOT, id.encoded()));
  }
}
