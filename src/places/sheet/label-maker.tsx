'use client';

import { Download } from 'lucide-react';
import { useId, useState } from 'react';
import type { Picture } from '@/core/picture/picture';
import { LABEL_MM, labelDrawing, labelOf, labelSvg, type LabelSize } from '@/core/sheet/label';
import type { LabelCode } from '@/core/sheet/label-code';
import { download, fileName, save } from '@/ui/download';
import { useView } from '@/ui/session';

const HOLDS: Readonly<Record<LabelCode['holds'], string>> = {
  all: 'Its code holds the whole design: read it with any phone and paste what it says under Import.',
  'no records':
    'Its code holds the design as it is built; readings, log and places of parts are too much for it and stay in the program.',
  name: 'This design is too much for a code of its size: the code holds the name it is kept under here.',
};

/** The label for the box: what it is, in, out, fuse, and a code with the design in it. */
export function LabelMaker({ picture }: { picture: Picture }) {
  const id = useView((s) => s.id);
  const revision = useView((s) => s.revision);
  const [typed, setTyped] = useState({ w: String(LABEL_MM.width), h: String(LABEL_MM.height) });
  const faultId = useId();
  const { design, hazard } = picture;
  const day = new Date().toISOString().slice(0, 10);
  const label = labelOf(design, { hazard, day, kept: { id, revision } });
  const size = sizeOf(typed);
  const file = `${fileName(design.name)}-label`;
  async function pdf({ wMm, hMm }: LabelSize) {
    const { drawingPdf } = await import('@/core/sheet/pdf');
    const bytes = await drawingPdf(labelDrawing(label, { wMm, hMm }), { wMm, hMm }, `${design.name}: label`, day);
    save(`${file}.pdf`, new Blob([bytes.slice().buffer], { type: 'application/pdf' }));
  }
  return (
    <section aria-label="Label" className="flex flex-wrap items-start gap-x-5 gap-y-2">
      <div className="w-[300px] max-w-full border border-edge bg-white" data-testid="label">
        {size && (
          <img
            alt={`Label: ${[label.name, ...label.lines, label.hazard ?? ''].join('. ')}`}
            src={`data:image/svg+xml,${encodeURIComponent(labelSvg(label, size))}`}
            className="block w-full"
          />
        )}
      </div>
      <div className="min-w-[240px] flex-1 space-y-1.5 text-[14px]">
        <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
          {(['w', 'h'] as const).map((side) => (
            <label key={side} className="flex items-center gap-1.5">
              {side === 'w' ? 'Wide, mm' : 'High, mm'}
              <input
                className="field !w-[84px]"
                inputMode="decimal"
                value={typed[side]}
                aria-invalid={!size}
                aria-describedby={faultId}
                onChange={(e) => setTyped({ ...typed, [side]: e.target.value })}
              />
            </label>
          ))}
          <button type="button" className="btn" disabled={!size} onClick={() => size && void pdf(size)}>
            <Download size={15} /> Label, PDF
          </button>
          <button
            type="button"
            className="btn"
            disabled={!size}
            onClick={() => size && download(`${file}.svg`, labelSvg(label, size), 'image/svg+xml')}
          >
            <Download size={15} /> SVG
          </button>
        </div>
        <p id={faultId} role="alert" className="text-fail empty:hidden">
          {size
            ? ''
            : `A label is between ${LABEL_MM.min} and ${LABEL_MM.max} mm on each side, and no higher than wide.`}
        </p>
        <p className="text-quiet">{HOLDS[label.code.holds]}</p>
      </div>
    </section>
  );
}

function sizeOf({ w, h }: { w: string; h: string }): LabelSize | null {
  const [wMm, hMm] = [Number(w.replace(',', '.')), Number(h.replace(',', '.'))];
  const real = (mm: number) => mm >= LABEL_MM.min && mm <= LABEL_MM.max;
  return real(wMm) && real(hMm) && hMm <= wMm ? { wMm, hMm } : null;
}
