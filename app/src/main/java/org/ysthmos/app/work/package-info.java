/** How the stages of the engine wake each other and run side by side. */
@NullMarked
package org.ysthmos.app.work;

import org.jspecify.annotations.NullMarked;
