/** Files that are dropped into a folder: CSV (RFC 4180), NDJSON and iCalendar (RFC 5545). */
@NullMarked
package org.ysthmos.adapters.drop;

import org.jspecify.annotations.NullMarked;
