/** Grounds Board: a task system with boards, lanes and people known only by id. */
@NullMarked
package org.ysthmos.standins.groundsboard;

import org.jspecify.annotations.NullMarked;
