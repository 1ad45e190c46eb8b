/** Copies of bridges that know where they came from, and follow their originals. */
@NullMarked
package org.ysthmos.app.copies;

import org.jspecify.annotations.NullMarked;
