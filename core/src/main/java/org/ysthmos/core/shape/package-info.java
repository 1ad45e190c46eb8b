/** What a collection's records look like: the fields, their names for people and their types. */
@NullMarked
package org.ysthmos.core.shape;

import org.jspecify.annotations.NullMarked;
