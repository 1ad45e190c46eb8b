package org.ysthmos.core.loop;

import org.ysthmos.core.gateway.CollectionRef;

/** What systems tell of what was written to them. */
public interface Tells {

  /** Whether an event that tells of nothing but what was written from here is known as that. */
  boolean knowsOwnWriting(CollectionRef at);

  /** Whether making a record takes several calls, so that it is told of as a change, too. */
  boolean makingIsChanging(CollectionRef at);
}
