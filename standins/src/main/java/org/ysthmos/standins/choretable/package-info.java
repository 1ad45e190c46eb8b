/** Sheets of rows, as people keep them for rounds and exhibitions. */
@NullMarked
package org.ysthmos.standins.choretable;

import org.jspecify.annotations.NullMarked;
