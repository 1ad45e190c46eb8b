/** The rows of a table of which each comes round by itself. */
@NullMarked
package org.ysthmos.core.chore;

import org.jspecify.annotations.NullMarked;
