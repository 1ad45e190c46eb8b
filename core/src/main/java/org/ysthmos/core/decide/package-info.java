/** The one function: what a bridge version makes of an event. Pure, with no effect. */
@NullMarked
package org.ysthmos.core.decide;

import org.jspecify.annotations.NullMarked;
