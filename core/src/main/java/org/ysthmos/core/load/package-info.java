/** How much a bridge asks of the systems it joins, and how long its events wait for their turn. */
@NullMarked
package org.ysthmos.core.load;

import org.jspecify.annotations.NullMarked;
