package org.ysthmos.core.testkit;

import java.util.List;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.step.StepKinds;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.trial.TrialWorld;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/** Steps read from their documents and run on a value, with the garden's tables and calendar. */
public final class Steps {

  private static final TrialWorld WORLD = Garden.world();

  /** What came with the event: a mail's folder, and numbers, a day and a time to work with. */
  private static final List<FieldShape> FIELDS =
      List.of(
          FieldShape.of("/folder", "folder", ValueType.TEXT),
          FieldShape.of("/days", "days", ValueType.NUMBER),
          FieldShape.of("/none", "none", ValueType.NUMBER),
          FieldShape.of("/share", "share", ValueType.NUMBER),
          FieldShape.of("/blank", "blank", ValueType.NUMBER),
          FieldShape.of("/hour", "hour", ValueType.NUMBER),
          FieldShape.of("/until", "until", ValueType.DAY),
          FieldShape.of("/time", "time", ValueType.TEXT));

  private static final String DATA =
      """
      {"folder": "school-visits", "days": 30, "none": 0, "share": 1.5, "hour": 9,
       "until": "2026-12-24", "time": "16:30"}
      """;

  /** These fields; tables and calendars of the garden. */
  public static final Scope SCOPE =
      new Scope() {
        @Override
        public BoundField bind(Address address) {
          FieldShape field =
              FIELDS.stream()
                  .filter(one -> one.key().equals(address.toString()))
                  .findFirst()
                  .orElseThrow(() -> new Misfit("no field is called “" + address + "”"));
          return new BoundField(
              address, field, "event", -1, new BoundField.OfEvent(address.pointer(), field));
        }

        @Override
        public TableDefinition table(String id) {
          return Garden.CATALOG.table(id).orElseThrow(() -> new Misfit("no table " + id));
        }

        @Override
        public WorkingCalendar calendar(String id) {
          return Garden.CATALOG.calendar(id).orElseThrow(() -> new Misfit("no calendar " + id));
        }

        @Override
        public Scope inItemsOf(BoundField list) {
          throw new Misfit("no list of records");
        }
      };

  private Steps() {}

  public static Step step(String yaml) {
    return StepKinds.read(DocumentNode.parse(yaml));
  }

  public static Reading reading() {
    return Reading.of(Garden.event("post-room/mails", "arrived", "m-1", DATA), WORLD);
  }

  /** What the step makes of the value, warnings and all. */
  public static Computed apply(String yaml, Value in) {
    return step(yaml).compile(in.type(), SCOPE).function().apply(in, reading());
  }

  public static Computed apply(String yaml, String in) {
    return apply(yaml, Text.of(in));
  }

  /** The value as it is displayed, or the message of the problem. */
  public static String shown(Computed computed) {
    return switch (computed) {
      case Value value -> value.display();
      case Warned warned -> warned.value().display();
      case Problem problem -> problem.message();
    };
  }

  /** Steps in a row on a value that may be absent. */
  public static Computed chain(String yaml, Value in, ValueType type) {
    List<Step> steps = StepKinds.readAll(DocumentNode.parse("steps: " + yaml));
    return Chain.compile(steps, type, SCOPE).run(in, reading(), Chain.Warnings.NONE, null);
  }
}
