/** Bridges that are retired: held first, with what waits for them named. */
@NullMarked
package org.ysthmos.app.retire;

import org.jspecify.annotations.NullMarked;
