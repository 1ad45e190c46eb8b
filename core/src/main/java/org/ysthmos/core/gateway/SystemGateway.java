package org.ysthmos.core.gateway;

import org.ysthmos.core.load.CallLane;

/** All that is spoken with one outside system. */
public interface SystemGateway extends RecordGateway, TaskGateway, ChangeGateway, AutoCloseable {

  /** The lane in which all calls to the system go. */
  CallLane lane();

  @Override
  void close();
}
