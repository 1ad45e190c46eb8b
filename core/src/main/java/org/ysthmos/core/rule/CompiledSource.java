package org.ysthmos.core.rule;

import java.util.List;
import org.ysthmos.core.value.Computed;

/** A source made into a function. */
public interface CompiledSource {

  Computed read(Reading reading);

  /** The source fields it reads, for lineage. */
  List<BoundField> reads();
}
