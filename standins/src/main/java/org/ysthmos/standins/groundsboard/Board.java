package org.ysthmos.standins.groundsboard;

import java.util.List;

/** A board, its lanes in order, and the people who can be given its tasks. */
record Board(String id, String name, List<Lane> lanes) {

  record Lane(String id, String name) {}

  record Member(String id, String name) {}

  static final List<Board> ALL =
      List.of(
          new Board(
              "paths-and-trees",
              "Paths and trees",
              List.of(
                  new Lane("reported", "Reported"),
                  new Lane("under-way", "Under way"),
                  new Lane("finished", "Finished"))),
          new Board(
              "glasshouses",
              "Glasshouses",
              List.of(
                  new Lane("reported", "Reported"),
                  new Lane("under-way", "Under way"),
                  new Lane("finished", "Finished"))),
          new Board(
              "society",
              "Friends' society",
              List.of(new Lane("to-do", "To do"), new Lane("done", "Done"))),
          new Board(
              "education",
              "Education",
              List.of(
                  new Lane("primary", "Primary schools"),
                  new Lane("secondary", "Secondary schools"),
                  new Lane("holiday-club", "Holiday club"),
                  new Lane("answered", "Answered"))),
          new Board(
              "works",
              "Works",
              List.of(
                  new Lane("wanted", "Wanted"),
                  new Lane("doing", "Doing"),
                  new Lane("finished", "Finished"))),
          plain("yard-north", "North yard"),
          plain("yard-south", "South yard"),
          plain("beds-east", "East beds"),
          plain("beds-west", "West beds"));

  /** A board with two lanes, such as one to practise on. */
  static Board plain(String id, String name) {
    return new Board(id, name, List.of(new Lane("to-do", "To do"), new Lane("done", "Done")));
  }

  boolean isYard() {
    return id.startsWith("yard-");
  }

  /** Whether it tells of its tasks where that is wanted. */
  boolean tells() {
    return isYard() || id.equals("works");
  }

  static final List<Member> PEOPLE =
      List.of(
          new Member("bu-11", "Paths crew"),
          new Member("bu-12", "Tree crew"),
          new Member("bu-14", "Glass crew"),
          new Member("bu-21", "Inês Sequeira"),
          new Member("bu-22", "Tomás Abara"),
          new Member("bu-23", "Wen Oakes"),
          new Member("bu-31", "Marta Quill"),
          new Member("bu-32", "Ebo Larkin"),
          new Member("bu-41", "Hugo Duarte"),
          new Member("bu-42", "Sara Imanov"));

  boolean hasLane(String lane) {
    return lanes.stream().anyMatch(l -> l.id().equals(lane));
  }

  static boolean hasPerson(String id) {
    return PEOPLE.stream().anyMatch(person -> person.id().equals(id));
  }

  static String personName(String id) {
    return PEOPLE.stream()
        .filter(person -> person.id().equals(id))
        .map(Member::name)
        .findFirst()
        .orElse(id);
  }
}
