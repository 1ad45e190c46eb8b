/** What bounds a mistake: ceilings, counted where deliveries are stored. */
@NullMarked
package org.ysthmos.app.guard;

import org.jspecify.annotations.NullMarked;
