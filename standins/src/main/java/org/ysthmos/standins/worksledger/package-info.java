/**
 * The ledger of the garden's works department: jobs with people by mail, whole days, and entity
 * tags.
 */
@NullMarked
package org.ysthmos.standins.worksledger;

import org.jspecify.annotations.NullMarked;
