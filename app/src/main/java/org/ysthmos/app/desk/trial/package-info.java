/** Trying a draft on its samples, for the desk and for the proof sheet. */
@NullMarked
package org.ysthmos.app.desk.trial;

import org.jspecify.annotations.NullMarked;
