/** Secrets, encrypted at rest; nothing outside the adapters reads them back. */
@NullMarked
package org.ysthmos.app.secret;

import org.jspecify.annotations.NullMarked;
