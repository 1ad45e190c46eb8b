/** Tasks of two places that are kept alike, and what a person says where they disagree. */
@NullMarked
package org.ysthmos.app.sync;

import org.jspecify.annotations.NullMarked;
