/** Reading our YAML documents with line and column, refusing what is not known. */
@NullMarked
package org.ysthmos.core.document;

import org.jspecify.annotations.NullMarked;
