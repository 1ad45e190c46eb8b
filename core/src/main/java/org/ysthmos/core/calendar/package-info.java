/** Working days: weekdays, holidays and closures, and moving a day over them. */
@NullMarked
package org.ysthmos.core.calendar;

import org.jspecify.annotations.NullMarked;
