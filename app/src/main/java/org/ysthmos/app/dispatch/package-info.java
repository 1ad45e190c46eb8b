/**
 * Deciding what was taken in: in order, once, with the decision and its deliveries kept together.
 */
@NullMarked
package org.ysthmos.app.dispatch;

import org.jspecify.annotations.NullMarked;
