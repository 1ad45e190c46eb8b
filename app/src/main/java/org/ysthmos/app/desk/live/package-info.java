/** Putting a draft to work, with what it would change. */
@NullMarked
package org.ysthmos.app.desk.live;

import org.jspecify.annotations.NullMarked;
