/**
 * Likely pairs of source and target fields, found by their names, types and values. They are
 * offered to a person and never taken silently.
 */
@NullMarked
package org.ysthmos.core.suggest;

import org.jspecify.annotations.NullMarked;
