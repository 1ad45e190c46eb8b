/** Circles in which bridges feed themselves: which there are, and whether they come to an end. */
@NullMarked
package org.ysthmos.core.loop;

import org.jspecify.annotations.NullMarked;
