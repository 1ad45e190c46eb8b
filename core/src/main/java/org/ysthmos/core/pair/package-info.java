/** What makes two events be about the same thing. */
@NullMarked
package org.ysthmos.core.pair;

import org.jspecify.annotations.NullMarked;
