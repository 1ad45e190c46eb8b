/** Who does what is done: today one person, later whoever is signed in. */
@NullMarked
package org.ysthmos.app.who;

import org.jspecify.annotations.NullMarked;
