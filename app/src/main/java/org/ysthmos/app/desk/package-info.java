/**
 * The bridge desk: drafts, real events as samples, and what a draft makes of them, with no effect.
 */
@NullMarked
package org.ysthmos.app.desk;

import org.jspecify.annotations.NullMarked;
