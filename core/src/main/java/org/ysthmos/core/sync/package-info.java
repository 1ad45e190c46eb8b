/** Keeping two places alike: what a change on either side means across. */
@NullMarked
package org.ysthmos.core.sync;

import org.jspecify.annotations.NullMarked;
