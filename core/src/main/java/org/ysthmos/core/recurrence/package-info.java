/** Times that come round: rules of RFC 5545 in a named zone, and what of them is next. */
@org.jspecify.annotations.NullMarked
package org.ysthmos.core.recurrence;
