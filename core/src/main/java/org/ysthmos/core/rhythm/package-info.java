/** How often events usually come to a bridge, and whether what comes now is far from that. */
@NullMarked
package org.ysthmos.core.rhythm;

import org.jspecify.annotations.NullMarked;
