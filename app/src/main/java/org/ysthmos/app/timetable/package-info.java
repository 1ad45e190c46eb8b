/** Bridges that begin by themselves when a time has come. */
@NullMarked
package org.ysthmos.app.timetable;

import org.jspecify.annotations.NullMarked;
