import { termAnchor, type Term } from '@/core/design/glossary';

/** Terms with what they mean, each with an address of its own. */
export function TermList({ terms }: { terms: readonly Term[] }) {
  return (
    <dl data-explained="">
      {terms.map((t) => (
        <div
          key={t.term}
          id={termAnchor(t)}
          className="grid gap-x-5 border-t border-rule py-2 target:bg-raised min-[640px]:grid-cols-[190px_minmax(0,1fr)]"
        >
          <dt className="serif font-semibold">{t.term}</dt>
          <dd>{t.says}</dd>
        </div>
      ))}
    </dl>
  );
}
