/** Taking events in: verify, keep, acknowledge; in that order. */
@NullMarked
package org.ysthmos.app.intake;

import org.jspecify.annotations.NullMarked;
