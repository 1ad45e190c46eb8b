/** Serving the screens, and describing the API. */
@NullMarked
package org.ysthmos.app.pages;

import org.jspecify.annotations.NullMarked;
