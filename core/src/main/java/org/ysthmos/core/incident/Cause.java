package org.ysthmos.core.incident;

/** What can cause an incident, with what to do about it and the look that would prove it. */
public enum Cause {
  FULL(
      "%s is full",
      "Make room over there, or have the limit raised. Then send again what waits.",
      "See over there how full it is."),
  ROOM_BY_NOW(
      "%s was full and has room by now",
      "Send again what waits. If that is refused again, it keeps to another limit than the one it tells of.",
      "Send one of them again."),
  OUR_RATE(
      "We call %s more often than it allows",
      "Write its limit into the system’s document, or a lower one. What waits goes on by itself or can be sent again.",
      "Compare the calls that the system’s administrator counts for us with ours."),
  OTHERS_RATE(
      "Somebody else uses up our calls at %s",
      "Ask its administrator who else signs in with our account, and ask for an account of our own.",
      "Ask its administrator which calls our account made in the last hour."),
  NO_TOKEN(
      "We have no token for %s",
      "Ask its administrator for a token and keep it as the secret that Systems names.",
      "See on Systems which secret is lacking."),
  TOKEN_REFUSED(
      "%s does not take our token any more",
      "Ask its administrator for a new token and keep it in place of the old one.",
      "Sign in over there with the same token by hand."),
  NOT_PERMITTED(
      "Our account may not do this at %s",
      "Ask its administrator to give our account the right again.",
      "See over there what our account may do."),
  DOWN(
      "%s does not work",
      "Nothing need be done here: what waits goes on by itself once it answers. Tell its administrator.",
      "Open it in a browser."),
  SLOW(
      "%s takes longer than we wait",
      "Tell its administrator. Look over there for what may have been made, before sending it again.",
      "Time one call over there by hand."),
  OUR_NETWORK(
      "Our own network seems to be cut off: several systems do not answer",
      "Look at the network of this machine first.",
      "Open a system that has nothing to do with us from this machine."),
  SHAPE(
      "The records of %s do not look as described any more",
      "Mend the system’s document or the rules that read the field; the desk shows both. Then send again what waits.",
      "Look at a fresh record on the desk."),
  NAME_GONE(
      "Something that rules name is called otherwise at %s by now, or gone",
      "Mend the rules or rows that Systems lists with it. Then send again what waits.",
      "See on Systems what was renamed."),
  RULE(
      "Rules make a value that is refused",
      "Try one of the events on the desk, mend the rule, put it to work, then send again what waits.",
      "Try one of the events on the desk."),
  NEW_VERSION(
      "A new version of a bridge makes what is refused",
      "Compare it with the version before on the desk; put that to work again if in doubt.",
      "Try one of the events on the desk with the version before."),
  ONE_RECORD(
      "One record cannot be carried across",
      "Mend the record at its source; a later change of it comes across by itself.",
      "Look at the record at its source."),
  KEY_LACKING(
      "Something that is looked up is not there",
      "Enter what is lacking where it is looked up, or say in the rules what happens without it. Then send again what waits.",
      "Look for one of the keys by hand."),
  TWO_FOUND(
      "What is looked up is there more than once",
      "Leave one of them, or look up by more keys.",
      "Look for one of the keys by hand."),
  TASK_GONE(
      "Tasks that were to be changed are gone",
      "Say for each whether it is made anew or left; the trace has both.",
      "Look for one of them over there."),
  PLACE_GONE(
      "A place at %s is not where it was",
      "See whether it was moved or renamed over there, and mend the system’s document.",
      "Open the place over there by its address."),
  NOT_YET(
      "What events wait for did not come",
      "See why the bridge that makes it does not; what came since can be sent again.",
      "Look for the event that should have made it."),
  MAYBE_TWICE(
      "Tasks may be there already",
      "Say on Pairs of each whether it is the same; it is made, or joined to the other, by itself.",
      "See on Pairs how alike they are."),
  SOURCE_UNREADABLE(
      "What stands at the source cannot be read",
      "Mend it at the source; it is read again by itself.",
      "Open one of them at the source."),
  FAULT_HERE(
      "A fault of this application",
      "The log says more. What waits can be sent again once it is mended.",
      "Read the log at the time of the first of them."),
  LOOP(
      "A loop: “%s” reacts to what it makes itself",
      "Leave it held. Add a condition that its own writing does not meet, or let it not hear of its own writing (own-writes); then take back what it made.",
      "Follow the path of one event through the bridges named."),
  FLOOD(
      "More came in for “%s” than its ceiling allows",
      "See where the events come from. If they are right, raise the ceiling and release it.",
      "Look at a few of the events that wait: are they real?"),
  ONE_RECORD_RUNS(
      "One record keeps changing for “%s”",
      "Find out who changes it over there. Release the bridge when that has stopped.",
      "Look at the history of that record over there."),
  CEILING_LOW(
      "The ceiling of “%s” is lower than what it needs",
      "Raise the ceiling on the desk, then release it.",
      "Compare the bridge’s ceiling with its busiest hour, which Going live names."),
  SOURCE_SILENT(
      "Nothing comes from %s any more",
      "See over there whether anything happened that should have come, and whether its webhook or its list still works.",
      "Make something happen at the source, and see whether it comes."),
  SOURCE_NOT_READ(
      "Nothing can be read from %s",
      "Mend what *Systems* says of it; what happened meanwhile comes by itself then.",
      "Look at the system on *Systems*."),
  BUSIER(
      "Far more comes from %s than usual",
      "See what comes. If it is right, nothing is to be done; if it is not, hold the bridge, then take back what it made.",
      "Look at a few of the events: are they real?"),
  UNKNOWN(
      "Nothing that is known explains this",
      "Read one of the traces: its calls show what was sent and what came back.",
      "Read one of the traces.");

  private final String headline;
  private final String todo;
  private final String look;

  Cause(String headline, String todo, String look) {
    this.headline = headline;
    this.todo = todo;
    this.look = look;
  }

  /** The cause as a sentence, without its full stop. */
  String headline(String name) {
    return headline.replace("%s", name.isEmpty() ? "the other system" : name);
  }

  /** What a person can do. */
  public String todo() {
    return todo;
  }

  /** The one look that would prove it or clear it. */
  public String look() {
    return look;
  }
}
