/** Visitor Desk: a form system whose webhook carries only the id of what was sent in. */
@NullMarked
package org.ysthmos.standins.visitordesk;

import org.jspecify.annotations.NullMarked;
