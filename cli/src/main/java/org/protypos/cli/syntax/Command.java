package org.protypos.cli.syntax;

import java.util.concurrent.Callable;

/** A command of the program. It says what its line may hold, is given that, and is called then for an exit status. */
public interface Command extends Described, Callable<Integer> {}
