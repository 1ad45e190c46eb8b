package org.ysthmos.app.store;

/** Ends the process at once. */
@FunctionalInterface
public interface LastResort {

  /** Tried again later, it may work ({@code EX_TEMPFAIL} of sysexits.h). */
  int TRY_AGAIN = 75;

  void end(int status);
}
