/** Calendars that others subscribe to. */
@NullMarked
package org.ysthmos.adapters.feed;

import org.jspecify.annotations.NullMarked;
