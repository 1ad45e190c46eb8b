/** What bridges there are, whose they are, and how they do. */
@NullMarked
package org.ysthmos.app.register;

import org.jspecify.annotations.NullMarked;
