/** Switching the faults of systems that are there for practice. */
@NullMarked
package org.ysthmos.app.practice;

import org.jspecify.annotations.NullMarked;
