import type { ReactNode } from 'react';

/** One way in: what is typed on the left, what comes of it on the right, before it is made. */
export function WayIn({ form, proposal }: { form: ReactNode; proposal: ReactNode }) {
  return (
    <div className="grid gap-x-8 gap-y-5 min-[860px]:grid-cols-[minmax(260px,340px)_minmax(0,1fr)]">
      <div>{form}</div>
      <section aria-label="Proposal" aria-live="polite" className="min-w-0">
        {proposal}
      </section>
    </div>
  );
}

/** Stands where the proposal will: what will come back. */
export function Awaited({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="rounded border border-dashed border-rule p-6 text-quiet">
      <p className="serif text-[19px] text-ink">{title}</p>
      <p className="mt-1">{children}</p>
    </div>
  );
}
