/**
 * The command that checks a bridge without a server: decides given events and prints the results.
 */
@NullMarked
package org.ysthmos.app.check;

import org.jspecify.annotations.NullMarked;
