'use client';

import { BANDS } from '@/core/picture/picture';
import { Segments } from '@/ui/segments';
import { useSession, useView } from '@/ui/session';

/** Which mains the drawing beside it shows in front, and whether it is looked at through the lens. */
export function BandSwitch({ lens = true }: { lens?: boolean }) {
  const { view } = useSession();
  const band = useView((s) => s.band);
  const through = useView((s) => s.lens);
  return (
    <>
      <Segments
        label="Mains band in front"
        value={band}
        options={BANDS.map((b, n) => ({ value: b, label: b, title: `${b} line in front (${n + 1})` }))}
        onChange={(b) => view.setState({ band: b })}
      />
      {lens && (
        <button
          type="button"
          className="btn !min-h-[28px] aria-pressed:!bg-ink aria-pressed:!text-paper"
          aria-pressed={through}
          title="The tightest gap, magnified (L)"
          onClick={() => view.setState({ lens: !through })}
        >
          Lens
        </button>
      )}
    </>
  );
}
