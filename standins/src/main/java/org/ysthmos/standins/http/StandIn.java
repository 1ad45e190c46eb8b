package org.ysthmos.standins.http;

/** A simulated outside system, reached over the network alone. */
public interface StandIn extends AutoCloseable {

  /** Begins to answer. */
  StandIn start();

  /** The port of its pages and of its control. */
  int port();

  @Override
  void close();
}
