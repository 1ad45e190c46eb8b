/** Drafts of system documents out of OpenAPI 3.0 and 3.1 descriptions. */
@NullMarked
package org.ysthmos.adapters.openapi;

import org.jspecify.annotations.NullMarked;
