/** The samples a draft is tried on: received, added by a person, or read at the source. */
@NullMarked
package org.ysthmos.app.desk.sample;

import org.jspecify.annotations.NullMarked;
