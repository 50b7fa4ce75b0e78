import { expect, type Page } from '@playwright/test';
import { shelf } from './server';

/** Opens a page and waits until what the server drew answers to the hand: a click before that is lost. */
export async function goTo(page: Page, url: string) {
  const response = await page.goto(url);
  await page.waitForFunction(() =>
    [...document.querySelectorAll('button, input')].every((e) =>
      Object.keys(e).some((key) => key.startsWith('__reactProps')),
    ),
  );
  // A room that draws much stands a moment after its page.
  await expect(page.locator('main').getByText('A moment…', { exact: true })).toHaveCount(0);
  return response;
}

/** Opens the design of that name, at one of its places. */
export async function openDesign(page: Page, server: { url: string }, name: string, place = '') {
  const ids = await shelf(server.url);
  await goTo(page, `${server.url}/design/${ids[name]}${place}`);
}

/** Goes to a place of the open design, and on to one of its rooms. */
export async function visit(page: Page, place: string, room?: string) {
  const street = page.getByRole('navigation', { name: 'Places of this design' });
  await street.getByRole('link', { name: place, exact: true }).click();
  if (room === undefined) return;
  const link = street.getByRole('link', { name: room, exact: true });
  await link.click();
  await expect(link).toHaveAttribute('aria-current', 'page');
}
