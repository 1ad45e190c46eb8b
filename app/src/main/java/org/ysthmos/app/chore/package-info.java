/** Bridges over a table of which each row comes round by itself: its rows, and their times. */
@NullMarked
package org.ysthmos.app.chore;

import org.jspecify.annotations.NullMarked;
