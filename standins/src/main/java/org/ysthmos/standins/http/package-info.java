/** A small HTTP server with routes, sign-in by token, and faults that can be switched on. */
@NullMarked
package org.ysthmos.standins.http;

import org.jspecify.annotations.NullMarked;
