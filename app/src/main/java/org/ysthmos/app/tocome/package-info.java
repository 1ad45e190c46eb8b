/** What bridges will make, and when. */
@NullMarked
package org.ysthmos.app.tocome;

import org.jspecify.annotations.NullMarked;
