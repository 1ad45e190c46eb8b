/** Asking collections what changed, at their intervals, page by page. */
@NullMarked
package org.ysthmos.app.poll;

import org.jspecify.annotations.NullMarked;
