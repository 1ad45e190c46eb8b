/** Talking JSON over HTTP to systems that a document describes. */
@NullMarked
package org.ysthmos.adapters.http;

import org.jspecify.annotations.NullMarked;
