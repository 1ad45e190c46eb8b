/**
 * Systems as documents describe them: collections, their fields, and how to read and write them.
 */
@NullMarked
package org.ysthmos.adapters.system;

import org.jspecify.annotations.NullMarked;
