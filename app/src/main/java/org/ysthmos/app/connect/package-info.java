/** Connecting systems: drafting their documents, trying them call by call, keeping them. */
@NullMarked
package org.ysthmos.app.connect;

import org.jspecify.annotations.NullMarked;
