/**
 * Simulated outside systems, for the demo and for tests. They know nothing of the product and are
 * reached only over the network, as the real ones would be.
 */
@NullMarked
package org.ysthmos.standins;

import org.jspecify.annotations.NullMarked;
