/** What commands have in common that work on an installation from outside. */
@NullMarked
package org.ysthmos.app.command;

import org.jspecify.annotations.NullMarked;
