/** What the engine needs of an outside system, whatever protocol it speaks. */
@NullMarked
package org.ysthmos.core.gateway;

import org.jspecify.annotations.NullMarked;
