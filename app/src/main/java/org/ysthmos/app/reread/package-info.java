/** Makes up for a span of time that is missing: what can be read again is, what cannot is said. */
@NullMarked
package org.ysthmos.app.reread;

import org.jspecify.annotations.NullMarked;
