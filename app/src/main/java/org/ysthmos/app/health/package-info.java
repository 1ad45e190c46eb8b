/** Whether the connected systems answer us, looked at on demand and on a schedule. */
@NullMarked
package org.ysthmos.app.health;

import org.jspecify.annotations.NullMarked;
