/** A bridge over events of the past, with no effect, against what became of them then. */
@NullMarked
package org.ysthmos.core.rehearsal;

import org.jspecify.annotations.NullMarked;
