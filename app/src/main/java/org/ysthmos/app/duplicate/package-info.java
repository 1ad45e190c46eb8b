/** Tasks that read nearly the same as others: found, shown side by side, and joined by a person. */
@NullMarked
package org.ysthmos.app.duplicate;

import org.jspecify.annotations.NullMarked;
