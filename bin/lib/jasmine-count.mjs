import { writeCount } from './counts.mjs';

/** Tells the test command how many specs passed and failed, beside the usual report. */
class CountReporter {
  passed = 0;
  failed = 0;

  specDone(result) {
    if (result.status === 'passed') this.passed += 1;
    if (result.status === 'failed') this.failed += 1;
  }

  jasmineDone(result) {
    // A failure outside any spec (a suite that could not be set up) counts too.
    this.failed += result.failedExpectations?.length ?? 0;
    writeCount(this);
  }
}

jasmine.getEnv().addReporter(new CountReporter());
