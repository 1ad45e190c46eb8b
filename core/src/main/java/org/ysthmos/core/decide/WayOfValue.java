package org.ysthmos.core.decide;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.decide.Explanation.Lineage;
import org.ysthmos.core.decide.Explanation.SourceValue;
import org.ysthmos.core.decide.Explanation.StepValue;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

/** Collects the way of one value in explained mode. */
final class WayOfValue implements Chain.Trail {

  private final List<StepValue> steps = new ArrayList<>();
  private @Nullable Computed start;

  @Override
  public void reached(String sentence, Computed computed) {
    if (!sentence.isEmpty()) {
      steps.add(new StepValue(sentence, computed));
    } else if (start == null) {
      // A rule within a rule starts again; the way starts where the first one did.
      start = computed;
    }
  }

  Lineage lineage(
      String member, FieldShape target, List<BoundField> reads, Reading reading, Computed result) {
    Computed begin = start == null ? result : start;
    List<SourceValue> sources = new ArrayList<>(reads.size());
    for (BoundField read : reads) {
      sources.add(
          new SourceValue(
              read.address().toString(), read.shape().name(), read.where(), held(read, reading)));
    }
    return new Lineage(member, target, sources, begin, steps, result);
  }

  private static Computed held(BoundField read, Reading reading) {
    ValueType type = read.shape().type();
    if (!type.equals(ValueType.listOf(ValueType.RECORD))) {
      return read.read(reading);
    }
    int records = read.reader().node(reading).size();
    return Text.of(records == 1 ? "1 record" : records + " records");
  }
}
