/** Seeing at a glance: what each bridge does, what waits, what needs a person; live. */
@NullMarked
package org.ysthmos.app.watch;

import org.jspecify.annotations.NullMarked;
