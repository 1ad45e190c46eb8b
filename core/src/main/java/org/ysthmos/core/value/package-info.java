/**
 * The closed set of values a field can hold. Days and moments are different types and nothing here
 * turns one into the other: that takes a stated time and zone, and is a step.
 */
@NullMarked
package org.ysthmos.core.value;

import org.jspecify.annotations.NullMarked;
