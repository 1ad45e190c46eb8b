/** The steps of a chain: a closed set of small records, each with its words and its options. */
@NullMarked
package org.ysthmos.core.step;

import org.jspecify.annotations.NullMarked;
