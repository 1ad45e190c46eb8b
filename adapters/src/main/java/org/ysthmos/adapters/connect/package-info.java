/** The documents of systems, whatever protocol they speak. */
@NullMarked
package org.ysthmos.adapters.connect;

import org.jspecify.annotations.NullMarked;
