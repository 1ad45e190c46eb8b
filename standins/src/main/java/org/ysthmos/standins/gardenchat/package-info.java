/** The garden's chat: channels, messages and reactions. */
@NullMarked
package org.ysthmos.standins.gardenchat;

import org.jspecify.annotations.NullMarked;
