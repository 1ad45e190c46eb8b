/** What hangs on what: which bridges use a thing, and what they would need without it. */
@NullMarked
package org.ysthmos.app.uses;

import org.jspecify.annotations.NullMarked;
