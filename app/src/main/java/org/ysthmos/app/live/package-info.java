/** Telling open browsers what changed. */
@NullMarked
package org.ysthmos.app.live;

import org.jspecify.annotations.NullMarked;
