/** The application: it takes events, carries them across and shows what happened. */
@NullMarked
package org.ysthmos.app;

import org.jspecify.annotations.NullMarked;
