/** Webhooks that come in: who sent them, and which event they tell of. */
@NullMarked
package org.ysthmos.adapters.hook;

import org.jspecify.annotations.NullMarked;
