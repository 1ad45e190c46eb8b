/** What bridges name outside of themselves, and where they do. */
@NullMarked
package org.ysthmos.core.uses;

import org.jspecify.annotations.NullMarked;
