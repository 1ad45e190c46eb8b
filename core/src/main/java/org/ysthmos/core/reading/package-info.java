/** Where values come from: addresses, what they are bound to when compiled, and reading them. */
@NullMarked
package org.ysthmos.core.reading;

import org.jspecify.annotations.NullMarked;
