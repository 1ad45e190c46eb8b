/** The stand-ins' own clock. */
@NullMarked
package org.ysthmos.standins.clock;

import org.jspecify.annotations.NullMarked;
