import { expect, test } from '@playwright/test';

/**
 * Every test of the file fails on an error in the page's console or a thrown one.
 * @param expected what the browser may say all the same
 * @returns what was seen in the running test, for tests that expect some of it
 */
export function watchFaults(expected?: RegExp): string[] {
  const faults: string[] = [];
  test.beforeEach(({ page }) => {
    faults.length = 0;
    page.on('pageerror', (error) => faults.push(error.message));
    page.on('console', (message) => {
      if (message.type() === 'error' && !expected?.test(message.text()))
        faults.push(`${message.text()} ${message.location().url}`.trim());
    });
  });
  test.afterEach(() => expect(faults).toEqual([]));
  return faults;
}
