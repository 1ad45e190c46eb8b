/** The garden's mail: a real IMAP and SMTP server with the folders of the school visits. */
@NullMarked
package org.ysthmos.standins.postroom;

import org.jspecify.annotations.NullMarked;
