/** Finding what a value was seen in: words, and segments that say where they stand. */
@NullMarked
package org.ysthmos.core.search;

import org.jspecify.annotations.NullMarked;
