/** Drafts and versions over events of the past, with no effect. */
@NullMarked
package org.ysthmos.app.rehearsal;

import org.jspecify.annotations.NullMarked;
