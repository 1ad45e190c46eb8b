/** Which failures are one incident, and what most likely causes it, from evidence. */
@NullMarked
package org.ysthmos.core.incident;

import org.jspecify.annotations.NullMarked;
