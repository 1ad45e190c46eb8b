package org.ysthmos.app.fullcheck;

/** How something that stood out stands. */
public enum CheckItemState {
  /** It is to be looked at with its other one. */
  TO_LOOK,
  /** It is otherwise than it should be. */
  FOUND,
  /** A person was asked about it before, and has not answered yet. */
  ASKED,
  /** It and another one may be the same, which stands for both. */
  MET,
  /** A person said that it is left as it is, and not made on the other side. */
  LEFT,
  /** It is to be put right. */
  WAITING,
  /** A trace puts it right. */
  UNDER_WAY,
  PUT_RIGHT,
  /** Its trace failed, or a person is asked. */
  NOT_PUT_RIGHT
}
