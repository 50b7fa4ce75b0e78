import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, type Page } from '@playwright/test';

/** Nothing on the page stands in anybody's way, as far as a program can tell. */
export async function accessible(page: Page) {
  await page
    .addScriptTag({ content: readFileSync(path.resolve('node_modules/axe-core/axe.min.js'), 'utf8') })
    .catch(async () => {
      await page.evaluate(readFileSync(path.resolve('node_modules/axe-core/axe.min.js'), 'utf8'));
    });
  const found = await page.evaluate(async () => {
    const axe = (
      window as unknown as {
        axe: { run(options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> };
      }
    ).axe;
    return (await axe.run({ rules: { 'target-size': { enabled: true } } })).violations.map(
      (v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 140)).join(' | ')}`,
    );
  });
  expect(found).toEqual([]);
}
