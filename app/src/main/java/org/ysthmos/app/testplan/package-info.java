/** What is tested of bridges again and again: when it is due, by whom, and how it went. */
@NullMarked
package org.ysthmos.app.testplan;

import org.jspecify.annotations.NullMarked;
