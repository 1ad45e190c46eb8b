/** What can be asked of one value: operators, and what they compare it with. */
@NullMarked
package org.ysthmos.core.compare;

import org.jspecify.annotations.NullMarked;
