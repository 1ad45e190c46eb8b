package org.ysthmos.core.gateway;

/** A collection of a system, by the ids of both. */
public record CollectionRef(String system, String collection) {

  @Override
  public String toString() {
    return system + "/" + collection;
  }
}
