/** Reference tables and working calendars: kept, asked by rules, and counted. */
@NullMarked
package org.ysthmos.app.table;

import org.jspecify.annotations.NullMarked;
