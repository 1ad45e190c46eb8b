/** Records kept in a file, so that a stand-in remembers across restarts. */
@NullMarked
package org.ysthmos.standins.store;

import org.jspecify.annotations.NullMarked;
