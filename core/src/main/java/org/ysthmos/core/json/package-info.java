/** Addresses into JSON documents (RFC 6901) and reading declared types out of them. */
@NullMarked
package org.ysthmos.core.json;

import org.jspecify.annotations.NullMarked;
