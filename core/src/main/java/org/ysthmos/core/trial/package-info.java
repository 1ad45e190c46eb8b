/** Deciding without effect: a world made of given records and tables, and pinned examples. */
@NullMarked
package org.ysthmos.core.trial;

import org.jspecify.annotations.NullMarked;
