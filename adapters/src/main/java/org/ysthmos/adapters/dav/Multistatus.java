package org.ysthmos.adapters.dav;

import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;

/**
 * A multistatus answer (RFC 4918 section 13).
 *
 * @param syncToken the token from which a later synchronisation goes on (RFC 6578 section 6.4)
 */
record Multistatus(List<Response> responses, Optional<String> syncToken) {

  private static final String DAV = "DAV:";

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

  /**
   * @throws IOException if it is no such answer; the message says why
   */
  static Multistatus read(String xml) throws IOException {
    Element root = parse(xml);
    if (!DAV.equals(root.getNamespaceURI()) || !"multistatus".equals(root.getLocalName())) {
      throw new IOException("the answer is no multistatus but " + root.getNodeName());
    }
    List<Response> responses = new ArrayList<>();
    for (Element response : children(root, "response")) {
      responses.add(response(response));
    }
    return new Multistatus(
        responses, children(root, "sync-token").stream().map(Element::getTextContent).findFirst());
  }

  private static Response response(Element response) throws IOException {
    String href =
        children(response, "href").stream()
            .map(Element::getTextContent)
            .map(String::strip)
            .findFirst()
            .orElseThrow(() -> new IOException("a response has no href"));
    int status =
        children(response, "status").stream().findFirst().map(Multistatus::status).orElse(0);
    Map<String, String> properties = new LinkedHashMap<>();
    boolean collection = false;
    for (Element propstat : children(response, "propstat")) {
      boolean found = children(propstat, "status").stream().anyMatch(one -> status(one) / 100 == 2);
      for (Element prop : found ? children(propstat, "prop") : List.<Element>of()) {
        for (Element property : elements(prop)) {
          properties.put(
              "{" + property.getNamespaceURI() + "}" + property.getLocalName(),
              property.getTextContent());
          collection |=
              "resourcetype".equals(property.getLocalName())
                  && !children(property, "collection").isEmpty();
        }
      }
    }
    return new Response(href, status, properties, collection);
  }

  /** {@code HTTP/1.1 200 OK}. */
  private static int status(Element element) {
    String[] words = element.getTextContent().strip().split(" ", 3);
    return words.length > 1 && words[1].matches("\\d{3}") ? Integer.parseInt(words[1]) : 0;
  }

  private static List<Element> children(Element of, String davName) {
    return elements(of).stream()
        .filter(child -> DAV.equals(child.getNamespaceURI()))
        .filter(child -> davName.equals(child.getLocalName()))
        .toList();
  }

  private static List<Element> elements(Element of) {
    List<Element> elements = new ArrayList<>();
    for (Node node = of.getFirstChild(); node != null; node = node.getNextSibling()) {
      if (node instanceof Element element) {
        elements.add(element);
      }
    }
    return elements;
  }

  /** Without document types: what comes from outside names no other files and grows no entities. */
  private static Element parse(String xml) throws IOException {
    try {
      // The parser of the JDK; which others lie about is not searched for at each answer.
      DocumentBuilderFactory factory = DocumentBuilderFactory.newDefaultNSInstance();
      factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
      factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
      DocumentBuilder builder = factory.newDocumentBuilder();
      builder.setErrorHandler(null);
      return builder.parse(new InputSource(new StringReader(xml))).getDocumentElement();
    } catch (SAXException e) {
      throw new IOException("the answer is no XML: " + e.getMessage(), e);
    } catch (ParserConfigurationException e) {
      throw new IllegalStateException("every Java has this XML parser", e);
    }
  }
}
