/** How values go into the database and come out of it. */
@NullMarked
package org.ysthmos.app.store;

import org.jspecify.annotations.NullMarked;
