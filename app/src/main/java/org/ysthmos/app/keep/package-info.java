/** How long what happened is kept. */
@NullMarked
package org.ysthmos.app.keep;

import org.jspecify.annotations.NullMarked;
