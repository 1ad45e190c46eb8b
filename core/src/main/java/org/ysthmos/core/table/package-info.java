/**
 * Reference tables: keys of one system to values of another, with a stated answer for what is not
 * found, as documents and as CSV (RFC 4180).
 */
@NullMarked
package org.ysthmos.core.table;

import org.jspecify.annotations.NullMarked;
