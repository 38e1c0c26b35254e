import type { Reporter, TestCase } from '@playwright/test/reporter';
import { writeCount } from '../bin/lib/counts.mjs';

/** Tells the test command how many tests passed and failed. */
export default class CountReporter implements Reporter {
  private readonly tests = new Map<string, TestCase>();

  onTestEnd(test: TestCase): void {
    this.tests.set(test.id, test);
  }

  onEnd(): void {
    const outcomes = [...this.tests.values()].map((test) => test.outcome());
    writeCount({
      passed: outcomes.filter((o) => o === 'expected' || o === 'flaky').length,
      failed: outcomes.filter((o) => o === 'unexpected').length,
    });
  }
}
