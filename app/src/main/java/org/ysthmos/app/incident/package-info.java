/**
 * Incidents: what waits for a person, by cause. What there is to see is looked at whenever it may
 * have changed; incidents open, close and come back by what is seen, so that none depends on
 * anything that a kill could lose.
 */
@NullMarked
package org.ysthmos.app.incident;

import org.jspecify.annotations.NullMarked;
