/** Finding and reading text inside of text: parts between labels, patterns, HTML. */
@NullMarked
package org.ysthmos.core.text;

import org.jspecify.annotations.NullMarked;
