/** Both lists of a bridge that goes both ways, held against what was agreed, and put right. */
@NullMarked
package org.ysthmos.app.fullcheck;

import org.jspecify.annotations.NullMarked;
