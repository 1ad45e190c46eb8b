package org.ysthmos.adapters.system;

import java.util.List;
import org.ysthmos.core.document.DocumentNode;

/** Reads what a system document says of one protocol. */
public interface ProtocolReader {

  /** The keys of a document that only this protocol has. */
  List<String> keys();

  /**
   * @param root the document
   */
  SystemDescription.Protocol protocol(DocumentNode root);

  /**
   * @param of which collection it is
   * @param node what the document says of it
   */
  SystemCollection collection(Collected of, DocumentNode node);
}
