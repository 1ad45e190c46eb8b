/** Pairs: a source record and its task, with what both held when they last agreed. */
@NullMarked
package org.ysthmos.app.pair;

import org.jspecify.annotations.NullMarked;
