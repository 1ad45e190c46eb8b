/** Traces: the story of one event across one bridge, kept and found again. */
@NullMarked
package org.ysthmos.app.trace;

import org.jspecify.annotations.NullMarked;
