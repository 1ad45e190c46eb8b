/** Sending again together what failed of one cause, once that is mended. */
@NullMarked
package org.ysthmos.app.resend;

import org.jspecify.annotations.NullMarked;
