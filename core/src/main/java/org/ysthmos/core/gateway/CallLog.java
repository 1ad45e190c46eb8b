package org.ysthmos.core.gateway;

/** Takes down each call to an outside system. */
@FunctionalInterface
public interface CallLog {
  void called(RemoteCall call);
}
