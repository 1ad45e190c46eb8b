/** The kinds of failure, what each asks for, and how long to wait before trying again. */
@NullMarked
package org.ysthmos.core.failure;

import org.jspecify.annotations.NullMarked;
