import { writeCount } from './counts.mjs';

const firstLine = (expectations) => (expectations[0]?.message ?? '').split('\n')[0];

/** Tells the test command how many specs passed and which failed, beside the usual report. */
class CountReporter {
  passed = 0;
  failures = [];

  specDone({ status, fullName, failedExpectations = [] }) {
    if (status === 'passed') this.passed += 1;
    if (status === 'failed') this.failures.push(`${fullName}: ${firstLine(failedExpectations)}`);
  }

  jasmineDone({ failedExpectations = [] }) {
    // A failure outside any spec (a suite that could not be set up) counts too.
    for (const one of failedExpectations) this.failures.push(`outside of the specs: ${firstLine([one])}`);
    writeCount({ passed: this.passed, failed: this.failures.length, failures: this.failures });
  }
}

jasmine.getEnv().addReporter(new CountReporter());
