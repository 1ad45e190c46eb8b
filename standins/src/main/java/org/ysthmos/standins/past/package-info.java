/** The garden's past: what its people did in the last weeks, carried out again on the stand-ins. */
@NullMarked
package org.ysthmos.standins.past;

import org.jspecify.annotations.NullMarked;
