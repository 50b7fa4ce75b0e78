import { termsIn, type Term } from '@/core/design/glossary';

/** The letters of every term in what `heads` matches inside a room and outside `explained`, each where it first stands. */
export function markedWords(room: Element, heads: string, explained: string): StaticRange[] {
  const said = new Set<Term>();
  const found: StaticRange[] = [];
  for (const head of room.querySelectorAll(heads)) {
    if (head.closest(explained)) continue;
    const texts = document.createTreeWalker(head, NodeFilter.SHOW_TEXT);
    for (let text = texts.nextNode(); text; text = texts.nextNode()) {
      for (const { from, to, term } of termsIn((text as Text).data)) {
        if (said.has(term)) continue;
        said.add(term);
        found.push(new StaticRange({ startContainer: text, startOffset: from, endContainer: text, endOffset: to }));
      }
    }
  }
  return found;
}
