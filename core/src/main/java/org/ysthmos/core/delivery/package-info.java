/** What may be done about an effect whose earlier tries may or may not have made it. */
@NullMarked
package org.ysthmos.core.delivery;

import org.jspecify.annotations.NullMarked;
