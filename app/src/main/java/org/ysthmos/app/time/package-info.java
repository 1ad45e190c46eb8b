/** The one clock and the one id scheme. */
@NullMarked
package org.ysthmos.app.time;

import org.jspecify.annotations.NullMarked;
