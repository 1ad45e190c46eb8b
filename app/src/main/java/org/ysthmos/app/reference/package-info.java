/** Reference tables and calendars as people look after them: made, changed, taken away. */
@NullMarked
package org.ysthmos.app.reference;

import org.jspecify.annotations.NullMarked;
