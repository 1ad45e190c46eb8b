/** Files that are uploaded into the folder of a system. */
@NullMarked
package org.ysthmos.app.drop;

import org.jspecify.annotations.NullMarked;
