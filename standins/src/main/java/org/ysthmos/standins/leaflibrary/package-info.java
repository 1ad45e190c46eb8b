/** The garden's library of documents: folders, revisions and properties, by WebDAV. */
@NullMarked
package org.ysthmos.standins.leaflibrary;

import org.jspecify.annotations.NullMarked;
