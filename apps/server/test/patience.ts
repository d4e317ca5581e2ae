// A house is started with a database of its own: on a busy machine that takes longer than Jasmine waits by itself.
jasmine.DEFAULT_TIMEOUT_INTERVAL = 60_000;
