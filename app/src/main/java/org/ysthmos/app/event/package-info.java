/** Events as they are kept. */
@NullMarked
package org.ysthmos.app.event;

import org.jspecify.annotations.NullMarked;
