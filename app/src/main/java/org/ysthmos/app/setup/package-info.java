/** What is loaded and connected at a start. */
@NullMarked
package org.ysthmos.app.setup;

import org.jspecify.annotations.NullMarked;
