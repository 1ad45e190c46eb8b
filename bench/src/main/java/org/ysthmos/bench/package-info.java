/** Speeds, each as a ratio against a yardstick that is measured in the same run. */
@NullMarked
package org.ysthmos.bench;

import org.jspecify.annotations.NullMarked;
