/** Finding traces by any value that was seen in them. */
@NullMarked
package org.ysthmos.app.search;

import org.jspecify.annotations.NullMarked;
