/** Errors of the API, as RFC 9457 problem details. */
@NullMarked
package org.ysthmos.app.problem;

import org.jspecify.annotations.NullMarked;
