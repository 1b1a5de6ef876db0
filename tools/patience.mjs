// A limit tells a hang, not a slow machine: no spec has less time than this.
jasmine.DEFAULT_TIMEOUT_INTERVAL = 120_000;
