/** Taking back what bridges made: what of it can be, in which order, and what becomes of it. */
@NullMarked
package org.ysthmos.core.recall;

import org.jspecify.annotations.NullMarked;
