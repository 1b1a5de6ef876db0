/** A busy machine is no fault: what these specs start and wait for may take longer there than jasmine's five seconds. */
jasmine.DEFAULT_TIMEOUT_INTERVAL = 30_000;
