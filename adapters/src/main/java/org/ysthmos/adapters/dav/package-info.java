/**
 * Documents by WebDAV (RFC 4918) and tasks by CalDAV (RFC 4791), what changed in either by
 * collection synchronisation (RFC 6578).
 */
@NullMarked
package org.ysthmos.adapters.dav;

import org.jspecify.annotations.NullMarked;
