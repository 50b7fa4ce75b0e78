/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import { render } from '@testing-library/react';

let path = '/design/a/sheet';
jest.mock('next/navigation', () => ({ usePathname: () => path }));

let useKeptScroll: () => void;
function Room() {
  useKeptScroll();
  return null;
}

const scrolledTo = (y: number) => {
  Object.defineProperty(window, 'scrollY', { value: y, configurable: true });
  window.dispatchEvent(new Event('scroll'));
};
const goOn = (to: string) => window.history.pushState({}, '', to);
const kept = () => JSON.parse(sessionStorage.getItem('ember-rail-scroll') ?? '{}') as Record<string, number>;

beforeAll(async () => {
  window.performance.getEntriesByType = () => [];
  window.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  ({ useKeptScroll } = await import('@/ui/kept-scroll'));
});

test('where one was in a room is kept when it is left, though the next room is shown from its top before', () => {
  goOn(path);
  const view = render(<Room />);
  scrolledTo(500);
  goOn('/design/a/load');
  scrolledTo(0);
  path = '/design/a/load';
  view.rerender(<Room />);
  expect(kept()['/design/a/sheet']).toBe(500);
  scrolledTo(80);
  view.unmount();
  expect(kept()).toEqual({ '/design/a/sheet': 500, '/design/a/load': 80 });
});
