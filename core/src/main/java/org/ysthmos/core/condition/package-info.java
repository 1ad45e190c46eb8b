/** When a bridge carries an event: all, any, or not, over tests. */
@NullMarked
package org.ysthmos.core.condition;

import org.jspecify.annotations.NullMarked;
