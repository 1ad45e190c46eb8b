package org.ysthmos.app.incident;

/** How an incident stands. */
public enum IncidentState {
  OPEN,
  /** A person says that they are at it. */
  MENDING,
  /** Nothing of it waits any more. */
  CLOSED
}
