package org.ysthmos.adapters.dav;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;

/**
 * A multistatus answer (RFC 4918 section 13).
 *
 * @param syncToken the token from which a later synchronisation goes on (RFC 6578 section 6.4)
 */
record Multistatus(List<Response> responses, Optional<String> syncToken) {

  /**
   * One resource.
   *
   * @param status of the resource itself, 0 if only its properties have one
   * @param properties those that were found: name in braces-namespace form, such as {@code
   *     {DAV:}getetag}, to its text
   * @param collection whether it holds others
   */
  record Response(String href, int status, Map<String, String> properties, boolean collection) {

    Optional<String> dav(String name) {
      return Optional.ofNullable(properties.get("{DAV:}" + name))
          .map(String::strip)
          .filter(text -> !text.isEmpty());
    }
  }

  /** An answer that is no multistatus; the message says why. */
  static final class Unreadable extends Exception {
    Unreadable(String message) {
      super(message);
    }
  }

  /** All of an answer at once; for those that are known to be short. */
  static Multistatus read(InputStream xml) throws IOException, Unreadable {
    List<Response> responses = new ArrayList<>();
    Optional<String> token = read(xml, responses::add);
    return new Multistatus(responses, token);
  }

  /**
   * Reads an answer while it comes, so that a listing may be as long as it is.
   *
   * @return its sync-token
   * @throws IOException if the connection breaks
   */
  static Optional<String> read(InputStream xml, Consumer<Response> each)
      throws IOException, Unreadable {
    try {
      return new MultistatusStream(XML.createXMLStreamReader(xml), each).read();
    } catch (XMLStreamException e) {
      if (e.getNestedException() instanceof IOException broken) {
        throw broken;
      }
      throw new Unreadable("the answer is no XML: " + e.getMessage());
    }
  }

  private static final XMLInputFactory XML = xml();

  /** Without document types: what comes from outside names no other files and grows no entities. */
  private static XMLInputFactory xml() {
    // The parser of the JDK; which others lie about is not searched for at each answer.
    XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
    factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    factory.setProperty(XMLInputFactory.IS_COALESCING, true);
    return factory;
  }
}
