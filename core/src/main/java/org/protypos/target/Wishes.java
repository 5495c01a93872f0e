package org.protypos.target;

import org.protypos.binding.Rules;
import org.protypos.naming.GivenNames;

/**
 * What somebody wants of the code of an API.
 *
 * @param rules what is to be called or typed otherwise than it would be
 * @param past the names that components have had, and keep unless somebody wants otherwise
 * @param packageName the package for everything, or null for one for each namespace
 */
public record Wishes(Rules rules, GivenNames past, String packageName) {}
