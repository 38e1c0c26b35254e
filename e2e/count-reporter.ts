import type { Reporter, TestCase } from '@playwright/test/reporter';
import { writeCount } from '../bin/lib/counts.mjs';

const firstLine = ({ results }: TestCase): string => results.flatMap(({ errors }) => errors)[0]?.message?.split('\n')[0] ?? '';

/** Tells the test command how many tests passed and which failed. */
export default class CountReporter implements Reporter {
  private readonly tests = new Map<string, TestCase>();

  onTestEnd(test: TestCase): void {
    this.tests.set(test.id, test);
  }

  onEnd(): void {
    const tests = [...this.tests.values()];
    const failed = tests.filter((test) => test.outcome() === 'unexpected' || test.outcome() === 'flaky');
    writeCount({
      passed: tests.filter((test) => test.outcome() === 'expected').length,
      failed: failed.length,
      failures: failed.map((test) => `${test.title}: ${firstLine(test)}`),
    });
  }
}
