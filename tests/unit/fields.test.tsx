/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { AmountCell } from '@/ui/amount-cell';
import { QuantityField } from '@/ui/quantity-field';
import { ReadField } from '@/ui/read-field';
import { REST_MS } from '@/ui/typed-field';

const taken: (number | null)[] = [];
const alike: [number, number][] = [];

/** A field over a value that stays what the test says, as a design of which nothing else is known. */
function field(over: Partial<Parameters<typeof QuantityField>[0]> = {}) {
  taken.length = 0;
  alike.length = 0;
  render(<QuantityField path="reservoir.capacitanceF" value={6.8e-3} onCommit={(v) => taken.push(v)} {...over} />);
  return screen.getByRole<HTMLInputElement>('textbox');
}
const type = (input: HTMLInputElement, text: string) => fireEvent.change(input, { target: { value: text } });
const rest = (ms = REST_MS) => act(() => void jest.advanceTimersByTime(ms));

beforeEach(() => jest.useFakeTimers());
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

test('shows its value as builders write it, and its label', () => {
  const input = field();
  expect(input.value).toBe('6800 µF');
  expect(screen.getByLabelText('Capacitance')).toBe(input);
});

test.each(['4700u', '4700 µF', '4,7m', '0.0047', '4m7'])('takes %s when the field is left', (text) => {
  const input = field();
  type(input, text);
  expect(taken).toEqual([]);
  fireEvent.blur(input);
  expect(taken).toHaveLength(1);
  expect(taken[0]).toBeCloseTo(4.7e-3, 12);
});

test('Enter takes it too, and what stands already is not taken again', () => {
  const input = field();
  type(input, '4700u');
  fireEvent.keyDown(input, { key: 'Enter' });
  expect(taken).toHaveLength(1);
  cleanup();
  const same = field();
  type(same, '6800 uF');
  fireEvent.keyDown(same, { key: 'Enter' });
  expect(taken).toEqual([]);
});

test('what is typed counts once the hand rests, not before; Escape goes back to what stood there', () => {
  const input = field();
  type(input, '47');
  rest(REST_MS - 1);
  type(input, '4700u');
  rest(REST_MS - 1);
  expect(taken).toEqual([]);
  rest(1);
  expect(taken[0]).toBeCloseTo(4.7e-3, 12);
  // The text stays as it is being typed.
  expect(input.value).toBe('4700u');
  fireEvent.keyDown(input, { key: 'Escape' });
  expect(taken[1]).toBe(6.8e-3);
  expect(input.value).toBe('6800 µF');
});

test('half a number is no fault while it is typed; left, it stays with a sentence and changes nothing', () => {
  const input = field();
  type(input, 'lots');
  rest();
  expect(screen.queryByRole('alert')).toBeNull();
  fireEvent.blur(input);
  expect(screen.getByRole('alert').textContent).toMatch(/.{10}/);
  expect(input.value).toBe('lots');
  expect(input.getAttribute('aria-invalid')).toBe('true');
  expect(taken).toEqual([]);
  type(input, '1000u');
  fireEvent.blur(input);
  expect(screen.queryByRole('alert')).toBeNull();
  expect(taken[0]).toBeCloseTo(1e-3, 12);
});

test('beyond its limits it is refused: more than a farad, whatever the check says, and what the check says', () => {
  const check = (v: number) => (v > 0.5 ? 'More than half a farad.' : null);
  const input = field({ check });
  type(input, '1000 F');
  fireEvent.blur(input);
  expect(screen.getByRole('alert').textContent).toMatch(/1 F/);
  type(input, '0.6 F');
  fireEvent.blur(input);
  expect(screen.getByRole('alert').textContent).toBe('More than half a farad.');
  expect(taken).toEqual([]);
});

test('an emptied field that may be empty says nothing is given; one that may not is a fault', () => {
  const may = field({ path: 'reservoir.esrOhm', value: 0.04 });
  type(may, '');
  fireEvent.blur(may);
  expect(taken).toEqual([null]);
  cleanup();
  const mayNot = field();
  type(mayNot, ' ');
  fireEvent.blur(mayNot);
  expect(taken).toEqual([]);
  expect(screen.getByRole('alert')).toBeTruthy();
});

test('arrows step, tenfold with Shift, and never beyond a limit', () => {
  const steps: number[] = [];
  const step = (v: number, direction: number) => (steps.push(direction), v + 10 * direction);
  const input = field({ step });
  fireEvent.keyDown(input, { key: 'ArrowUp' });
  fireEvent.keyDown(input, { key: 'ArrowDown', shiftKey: true });
  expect(steps).toEqual([1, -10]);
  // A farad is the most, nothing the least.
  expect(taken).toEqual([1, 0]);
});

test('several alike are told apart where that is understood', () => {
  const input = field({ several: (count, each) => alike.push([count, each]) });
  type(input, '68 x 220 uF');
  fireEvent.blur(input);
  expect(alike[0]![0]).toBe(68);
  expect(alike[0]![1]).toBeCloseTo(220e-6, 12);
  expect(taken).toEqual([]);
});

test('undo while typing belongs to the typing', () => {
  const input = field();
  const heard = jest.fn();
  window.addEventListener('keydown', heard);
  fireEvent.keyDown(input, { key: 'z', ctrlKey: true });
  expect(heard).toHaveBeenCalledTimes(1);
  type(input, '4700u');
  fireEvent.keyDown(input, { key: 'z', ctrlKey: true });
  expect(heard).toHaveBeenCalledTimes(1);
  window.removeEventListener('keydown', heard);
});

test('a field of its own grammar goes the same way', () => {
  const got: string[] = [];
  render(
    <ReadField
      label="Window"
      shown="58 to 70 V"
      read={(text) => (text.includes('to') ? { ok: true, value: text } : { ok: false, error: 'Two ends, please.' })}
      onCommit={(v) => got.push(v)}
    />,
  );
  const input = screen.getByRole<HTMLInputElement>('textbox');
  type(input, '60');
  fireEvent.blur(input);
  expect(screen.getByRole('alert').textContent).toBe('Two ends, please.');
  type(input, '60 to 66 V');
  rest();
  expect(got).toEqual(['60 to 66 V']);
  fireEvent.keyDown(input, { key: 'Escape' });
  expect(got).toEqual(['60 to 66 V', '58 to 70 V']);
});

test('a cell of the load table is named for those who do not see its column, and reads watts of its output', () => {
  const got: (number | null)[] = [];
  render(
    <table>
      <tbody>
        <tr>
          <AmountCell
            path="load.typicalA"
            label="Typical of line 1"
            value={0.5}
            volts={12}
            onCommit={(v) => got.push(v)}
          />
        </tr>
      </tbody>
    </table>,
  );
  const input = screen.getByLabelText<HTMLInputElement>('Typical of line 1');
  expect(input.value).toBe('500 mA');
  type(input, '24 W');
  rest();
  expect(got).toEqual([2]);
  type(input, 'plenty');
  fireEvent.blur(input);
  expect(screen.getByRole('alert').textContent).toMatch(/ohms and watts/);
});
