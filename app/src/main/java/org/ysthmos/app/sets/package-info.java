/** Sets of tasks around a day: what would move if that moved. */
@NullMarked
package org.ysthmos.app.sets;

import org.jspecify.annotations.NullMarked;
