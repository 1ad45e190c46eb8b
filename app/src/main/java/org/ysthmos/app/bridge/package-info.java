/** Bridges: their documents, their versions, and what they look like to people. */
@NullMarked
package org.ysthmos.app.bridge;

import org.jspecify.annotations.NullMarked;
