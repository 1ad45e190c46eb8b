/** Backups as files, taken while the application runs or not, and put back. */
@NullMarked
package org.ysthmos.app.backup;

import org.jspecify.annotations.NullMarked;
