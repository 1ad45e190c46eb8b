/** What describes an installation, as documents in a folder: written, held against, and applied. */
@NullMarked
package org.ysthmos.app.installation;

import org.jspecify.annotations.NullMarked;
