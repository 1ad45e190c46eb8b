/** What is usual at each bridge, and what is far from it. */
@NullMarked
package org.ysthmos.app.rhythm;

import org.jspecify.annotations.NullMarked;
