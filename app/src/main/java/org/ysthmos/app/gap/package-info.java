/** Spans of time that are missing here, since the data was restored from a copy of then. */
@NullMarked
package org.ysthmos.app.gap;

import org.jspecify.annotations.NullMarked;
