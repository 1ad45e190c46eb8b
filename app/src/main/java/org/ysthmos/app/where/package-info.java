/** Where is it? What is known of a record at its source, here and where its task stands. */
@NullMarked
package org.ysthmos.app.where;

import org.jspecify.annotations.NullMarked;
