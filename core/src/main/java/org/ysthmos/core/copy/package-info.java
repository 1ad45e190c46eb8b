/** What copies of bridges take over of later changes of their originals. */
@NullMarked
package org.ysthmos.core.copy;

import org.jspecify.annotations.NullMarked;
