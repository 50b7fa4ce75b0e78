import { GLOSSARY, stretches, termAnchor } from '@/core/design/glossary';
import { FIELD_HINTS } from '@/core/design/field-hints';

test('the list is in the order of the alphabet, says every term once, and each has a place of its own', () => {
  const names = GLOSSARY.map((t) => t.term);
  expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b)));
  expect(new Set(GLOSSARY.map(termAnchor)).size).toBe(GLOSSARY.length);
  const words = GLOSSARY.flatMap((t) => [t.term.toLowerCase(), ...t.also]);
  expect(new Set(words).size).toBe(words.length);
  for (const t of GLOSSARY) {
    expect(t.says).toMatch(/^[A-Z].*[.]$/);
    for (const word of t.also) expect(word).toBe(word.toLowerCase());
  }
});

test('a sentence comes back letter by letter, its terms told apart, each where it stands first', () => {
  const text = 'The valley of the ripple at low line; the Valley again, and a choke input, not a valleyed one.';
  const found = stretches(text);
  expect(found.map((s) => s.text).join('')).toBe(text);
  expect(found.filter((s) => s.term).map((s) => s.text)).toEqual(['valley', 'ripple', 'low line', 'choke input']);
  expect(stretches('nothing here')).toEqual([{ text: 'nothing here', term: null }]);
  expect(stretches('')).toEqual([]);
});

test('the longest term is the one that is meant, and part of a word is none', () => {
  const terms = (text: string) => stretches(text).flatMap((s) => (s.term ? [s.term.term] : []));
  expect(terms('ripple current in it')).toEqual(['Ripple current']);
  expect(terms('thermal resistance, K/W')).toEqual(['K/W']);
  expect(terms('railing, tabs, casement, armsful')).toEqual([]);
  expect(terms('I²t of the fuse')).toEqual(['I²t']);
});

test('the hints beside the fields use words that are explained', () => {
  const explained = Object.values(FIELD_HINTS).filter((hint) => stretches(hint).some((s) => s.term));
  expect(explained.length).toBeGreaterThan(Object.keys(FIELD_HINTS).length / 4);
});
