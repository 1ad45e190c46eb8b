/** What becomes of bridges if a thing that they name is gone or called otherwise. */
@NullMarked
package org.ysthmos.core.impact;

import org.jspecify.annotations.NullMarked;
