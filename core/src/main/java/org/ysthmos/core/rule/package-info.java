/** How one target field gets its value: sources, then a chain of steps; described and compiled. */
@NullMarked
package org.ysthmos.core.rule;

import org.jspecify.annotations.NullMarked;
