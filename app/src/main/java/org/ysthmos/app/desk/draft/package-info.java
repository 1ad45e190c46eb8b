/** Drafts: how they begin, are typed and kept, and what they are compiled to. */
@NullMarked
package org.ysthmos.app.desk.draft;

import org.jspecify.annotations.NullMarked;
