package org.ysthmos.adapters.dav;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.ysthmos.adapters.dav.Multistatus.Response;
import org.ysthmos.adapters.dav.Multistatus.Unreadable;

/** Goes through one multistatus answer, from its first element to its last. */
final class MultistatusStream {

  private static final String DAV = "DAV:";

  /** The most that is kept of one property, in characters. */
  private static final int LONGEST_PROPERTY = 100_000;

  private final XMLStreamReader in;
  private final Consumer<Response> each;

  MultistatusStream(XMLStreamReader in, Consumer<Response> each) {
    this.in = in;
    this.each = each;
  }

  /** Gives the sync-token (RFC 6578 section 6.4). */
  Optional<String> read() throws XMLStreamException, Unreadable {
    while (in.getEventType() != XMLStreamConstants.START_ELEMENT) {
      if (in.getEventType() == XMLStreamConstants.DTD) {
        throw new Unreadable("the answer is no XML that is taken: it has a document type");
      }
      in.next();
    }
    if (!is("multistatus")) {
      throw new Unreadable("the answer is no multistatus but " + in.getLocalName());
    }
    Optional<String> token = Optional.empty();
    while (nextChild()) {
      if (is("response")) {
        response();
      } else if (is("sync-token")) {
        token = Optional.of(text());
      } else {
        skip();
      }
    }
    return token;
  }

  private void response() throws XMLStreamException, Unreadable {
    String href = null;
    int status = 0;
    Map<String, String> properties = new LinkedHashMap<>();
    boolean[] collection = {false};
    while (nextChild()) {
      if (is("href") && href == null) {
        href = text().strip();
      } else if (is("status")) {
        status = status(text());
      } else if (is("propstat")) {
        propstat(properties, collection);
      } else {
        skip();
      }
    }
    if (href == null) {
      throw new Unreadable("a response has no href");
    }
    each.accept(new Response(href, status, properties, collection[0]));
  }

  /** Properties count only where their status says that they were found. */
  private void propstat(Map<String, String> into, boolean[] collection) throws XMLStreamException {
    Map<String, String> properties = new LinkedHashMap<>();
    boolean[] holds = {false};
    int status = 0;
    while (nextChild()) {
      if (is("prop")) {
        while (nextChild()) {
          property(properties, holds);
        }
      } else if (is("status")) {
        status = status(text());
      } else {
        skip();
      }
    }
    if (status / 100 == 2) {
      into.putAll(properties);
      collection[0] |= holds[0];
    }
  }

  private void property(Map<String, String> properties, boolean[] collection)
      throws XMLStreamException {
    String name = "{" + in.getNamespaceURI() + "}" + in.getLocalName();
    boolean type = is("resourcetype");
    StringBuilder text = new StringBuilder();
    for (int depth = 1; depth > 0; ) {
      switch (in.next()) {
        case XMLStreamConstants.START_ELEMENT -> {
          depth++;
          collection[0] |= type && is("collection");
        }
        case XMLStreamConstants.END_ELEMENT -> depth--;
        case XMLStreamConstants.CHARACTERS -> {
          if (text.length() < LONGEST_PROPERTY) {
            text.append(in.getText());
          }
        }
        default -> {}
      }
    }
    properties.put(name, text.toString());
  }

  /** Goes on to the next child of the element whose children are read; false behind the last. */
  private boolean nextChild() throws XMLStreamException {
    while (true) {
      switch (in.next()) {
        case XMLStreamConstants.START_ELEMENT -> {
          return true;
        }
        case XMLStreamConstants.END_ELEMENT, XMLStreamConstants.END_DOCUMENT -> {
          return false;
        }
        default -> {}
      }
    }
  }

  private boolean is(String name) {
    return DAV.equals(in.getNamespaceURI()) && name.equals(in.getLocalName());
  }

  private String text() throws XMLStreamException {
    StringBuilder text = new StringBuilder();
    for (int depth = 1; depth > 0; ) {
      switch (in.next()) {
        case XMLStreamConstants.START_ELEMENT -> depth++;
        case XMLStreamConstants.END_ELEMENT -> depth--;
        case XMLStreamConstants.CHARACTERS -> text.append(in.getText());
        default -> {}
      }
    }
    return text.toString();
  }

  private void skip() throws XMLStreamException {
    String unused = text();
  }

  /** {@code HTTP/1.1 200 OK}. */
  private static int status(String line) {
    String[] words = line.strip().split(" ", 3);
    return words.length > 1 && words[1].matches("\\d{3}") ? Integer.parseInt(words[1]) : 0;
  }
}
