/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { markedWords } from '@/ui/marked-words';
import { termsOf, WordsInHeads } from '@/ui/words-in-heads';

afterEach(cleanup);

const written = (range: StaticRange) => range.startContainer.textContent!.slice(range.startOffset, range.endOffset);

test('a term is marked where it first heads something, and never in a sentence', () => {
  render(
    <main>
      <h2>The valley at low line</h2>
      <p>A bleeder is no head.</p>
      <h3 data-explained="">Junction is explained beside it</h3>
      <table>
        <thead>
          <tr>
            <th>Valley</th>
            <th>
              of the <b>ripple</b>
            </th>
          </tr>
        </thead>
      </table>
    </main>,
  );
  const found = markedWords(document.querySelector('main')!, 'h2, h3, th', '[data-explained]').map(written);
  expect(found).toEqual(['valley', 'low line', 'ripple']);
});

test('a control is asked by its label, by what names it, and by what is written on it', () => {
  render(
    <>
      <label>
        Ripple and valley <input />
      </label>
      <span id="of">Junction</span>
      <select aria-labelledby="of" />
      <button aria-label="Bleeder">x</button>
      <button>Headroom</button>
      <div data-testid="plain">valley</div>
    </>,
  );
  const terms = (e: Element) => termsOf(e).map((t) => t.term);
  expect(terms(screen.getByRole('textbox'))).toEqual(['Ripple', 'Valley']);
  expect(terms(screen.getByRole('combobox'))).toEqual(['Junction']);
  expect(terms(screen.getByRole('button', { name: 'Bleeder' }))).toEqual(['Bleeder']);
  expect(terms(screen.getByRole('button', { name: 'Headroom' }))).toEqual(['Headroom']);
  expect(terms(screen.getByTestId('plain'))).toEqual([]);
});

test('F1 says the words of the control in focus; any other key is silence again', () => {
  render(
    <main>
      <label>
        Valley <input />
      </label>
      <button>Nothing of the trade</button>
      <WordsInHeads />
    </main>,
  );
  const press = (key: string) => act(() => void fireEvent.keyDown(document.activeElement!, { key }));
  act(() => screen.getByRole('textbox').focus());
  press('F1');
  expect(screen.getByRole('status').textContent).toMatch(/^Valley\. The lowest point of the ripple/);
  expect(document.activeElement).toBe(screen.getByRole('textbox'));
  press('a');
  expect(screen.queryByRole('status')).toBeNull();
  act(() => screen.getByRole('button').focus());
  press('F1');
  expect(screen.queryByRole('status')).toBeNull();
});
