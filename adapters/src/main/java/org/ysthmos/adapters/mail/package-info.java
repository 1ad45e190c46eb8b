/** Mail: folders read by IMAP (RFC 9051 and RFC 3501), letters sent by SMTP (RFC 5321). */
@NullMarked
package org.ysthmos.adapters.mail;

import org.jspecify.annotations.NullMarked;
