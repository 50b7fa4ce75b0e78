/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { Palette, type Wish } from '@/ui/palette';

const done: string[] = [];
const actions = [
  { name: 'Undo', hint: 'Ctrl Z' },
  { name: 'Go to Supply', hint: 'Design' },
  { name: 'Go to Readings', hint: 'Bench' },
  { name: 'Backup and restore' },
].map((a) => ({ ...a, run: () => void done.push(a.name) }));

/** The list as its frame holds it. */
function Listed(first: Wish) {
  const [wish, setWish] = useState<Wish | null>(first);
  return (
    wish && (
      <Palette
        wish={wish}
        actions={actions}
        onLetters={(letters) => setWish({ letters, entered: false })}
        onClose={() => {
          done.push('closed');
          setWish(null);
        }}
      />
    )
  );
}
const field = () => screen.getByPlaceholderText('Type a few letters');
const shown = () => screen.queryAllByRole('option').map((it) => it.firstChild?.textContent);
const chosen = () => screen.getByRole('option', { selected: true }).firstChild?.textContent;

beforeAll(() => {
  window.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  Element.prototype.scrollIntoView = () => {};
});
beforeEach(() => void done.splice(0));
afterEach(cleanup);

test('letters find by name and by hint, the closest first, and Enter does what is chosen', () => {
  render(<Listed letters="" entered={false} />);
  expect(shown()).toEqual(actions.map((a) => a.name));
  fireEvent.change(field(), { target: { value: 'bench' } });
  expect(shown()).toEqual(['Go to Readings']);
  fireEvent.change(field(), { target: { value: 'go' } });
  expect(shown()).toEqual(['Go to Supply', 'Go to Readings']);
  expect(chosen()).toBe('Go to Supply');
  fireEvent.keyDown(field(), { key: 'ArrowDown' });
  expect(chosen()).toBe('Go to Readings');
  fireEvent.keyDown(field(), { key: 'Enter' });
  expect(done).toEqual(['closed', 'Go to Readings']);
});

test('other letters choose anew from the top; where there is nothing, it is said and Enter does nothing', () => {
  render(<Listed letters="" entered={false} />);
  fireEvent.keyDown(field(), { key: 'ArrowDown' });
  expect(chosen()).toBe('Go to Supply');
  fireEvent.change(field(), { target: { value: 'u' } });
  expect(chosen()).toBe('Undo');
  fireEvent.change(field(), { target: { value: 'zebra' } });
  expect(shown()).toEqual([]);
  screen.getByText('Nothing by that name.');
  fireEvent.keyDown(field(), { key: 'Enter' });
  expect(done).toEqual([]);
});

test('Enter pressed before it stood is kept with the letters; with nothing found it waits for others', () => {
  render(<Listed letters="bench" entered />);
  expect(done).toEqual(['closed', 'Go to Readings']);
  cleanup();
  done.splice(0);
  render(<Listed letters="zebra" entered />);
  expect(done).toEqual([]);
  fireEvent.change(field(), { target: { value: 'back' } });
  expect(shown()).toEqual(['Backup and restore']);
  expect(done).toEqual([]);
});
