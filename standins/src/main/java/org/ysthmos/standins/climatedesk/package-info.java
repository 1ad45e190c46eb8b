/** The desk for the climate of the glasshouses: tickets, told by signed webhooks. */
@NullMarked
package org.ysthmos.standins.climatedesk;

import org.jspecify.annotations.NullMarked;
