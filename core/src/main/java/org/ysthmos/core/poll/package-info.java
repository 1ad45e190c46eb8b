/** Following what changes in a collection that is asked: passes, pages, and where to go on. */
@NullMarked
package org.ysthmos.core.poll;

import org.jspecify.annotations.NullMarked;
