/** Sending webhooks, signed as Standard Webhooks says. */
@NullMarked
package org.ysthmos.standins.hook;

import org.jspecify.annotations.NullMarked;
