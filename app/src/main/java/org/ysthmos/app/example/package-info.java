/** Pinned examples: events with their expected results, checked before a version goes live. */
@NullMarked
package org.ysthmos.app.example;

import org.jspecify.annotations.NullMarked;
