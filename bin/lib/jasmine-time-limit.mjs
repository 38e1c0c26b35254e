/** Milliseconds. A time limit ends what hangs; it does not measure: a loaded machine needs many times as long as an idle one. */
jasmine.DEFAULT_TIMEOUT_INTERVAL = 300_000;
