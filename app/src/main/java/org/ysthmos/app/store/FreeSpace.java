package org.ysthmos.app.store;

/** How much room the disk has on which everything is kept. */
@FunctionalInterface
public interface FreeSpace {

  /** What may still be written, in bytes. */
  long bytes();
}
