/** When bridges are to be tested again. */
@NullMarked
package org.ysthmos.core.testplan;

import org.jspecify.annotations.NullMarked;
