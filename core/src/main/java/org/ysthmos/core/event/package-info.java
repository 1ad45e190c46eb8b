/** What happened to a record in an outside system. */
@NullMarked
package org.ysthmos.core.event;

import org.jspecify.annotations.NullMarked;
