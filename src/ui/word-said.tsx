import type { Term } from '@/core/design/glossary';

/** A term and what it means here. */
export function WordSaid({ term }: { term: Term }) {
  return (
    <>
      <span className="serif font-semibold">{term.term}.</span> {term.says}
    </>
  );
}
