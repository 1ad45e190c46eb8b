package org.ysthmos.core.step;

import java.util.function.Function;
import org.ysthmos.core.document.DocumentNode;

/**
 * A step as documents know it.
 *
 * @param name the key in a bridge document
 * @param summary what it does, one sentence
 * @param example how it is written
 * @param read reads the options under the key
 */
public record StepKind(
    String name, String summary, String example, Function<DocumentNode, Step> read) {}
