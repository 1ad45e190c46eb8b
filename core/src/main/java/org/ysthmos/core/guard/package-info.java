/** What bounds a mistake: how much a bridge may do in a span, whatever goes wrong. */
@NullMarked
package org.ysthmos.core.guard;

import org.jspecify.annotations.NullMarked;
