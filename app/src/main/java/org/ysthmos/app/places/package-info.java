/** Bridges that hear many places: what becomes of each place, and which are offered. */
@NullMarked
package org.ysthmos.app.places;

import org.jspecify.annotations.NullMarked;
