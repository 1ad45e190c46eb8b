/** Carrying deliveries to their systems: written down before they are tried, never repeated. */
@NullMarked
package org.ysthmos.app.courier;

import org.jspecify.annotations.NullMarked;
