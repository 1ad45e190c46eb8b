/** Which titles are nearly equal, found among very many without comparing each. */
@NullMarked
package org.ysthmos.core.likeness;

import org.jspecify.annotations.NullMarked;
