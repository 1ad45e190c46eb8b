/** Taking back what bridges made in a span of time: the exact list first, then by deliveries. */
@NullMarked
package org.ysthmos.app.recall;

import org.jspecify.annotations.NullMarked;
