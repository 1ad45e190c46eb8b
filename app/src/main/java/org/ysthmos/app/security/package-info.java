/** What keeps other pages and other machines out. */
@NullMarked
package org.ysthmos.app.security;

import org.jspecify.annotations.NullMarked;
