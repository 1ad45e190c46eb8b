/** The register of the garden's friends: people, and the pledges they make. */
@NullMarked
package org.ysthmos.standins.friendsregister;

import org.jspecify.annotations.NullMarked;
