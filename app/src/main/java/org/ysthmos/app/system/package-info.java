/** The outside systems that are connected. */
@NullMarked
package org.ysthmos.app.system;

import org.jspecify.annotations.NullMarked;
