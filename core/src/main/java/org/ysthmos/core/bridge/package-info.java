/** Bridges as they are written and as they are compiled. */
@NullMarked
package org.ysthmos.core.bridge;

import org.jspecify.annotations.NullMarked;
