/** What is published of the rule language: its JSON Schema and its reference page. */
@NullMarked
package org.ysthmos.core.reference;

import org.jspecify.annotations.NullMarked;
