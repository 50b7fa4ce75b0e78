'use client';

import { farEnoughApart } from '@/core/design/limits';
import type { FieldPath } from '@/core/design/limits';
import { diodeClass, diodeOf, forwardV, type DiodeSheet, type ForwardPoints } from '@/core/parts/diode';
import { formatNominal, formatQuantity } from '@/core/quantity/format';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';

const NO_SHEET: DiodeSheet = { points: null, jcKPerW: null, jaKPerW: null };

export function Fields() {
  const { rectifier } = useDesign();
  const edit = useEdit();
  const made = diodeClass(rectifier.diode);
  const now = diodeOf(rectifier);
  const { rated } = rectifier;
  const sheet = rectifier.sheet ?? NO_SHEET;
  const setSheet = (part: Partial<DiodeSheet>) => {
    const next = { ...sheet, ...part };
    edit({ rectifier: { sheet: Object.values(next).every((v) => v === null) ? null : next } });
  };
  const rating = (name: 'averageA' | 'reverseV' | 'surgeA') => (
    <QuantityField
      key={name}
      path={`rectifier.${name}`}
      value={now[name]}
      onCommit={(v) =>
        edit({
          rectifier: { rated: { averageA: now.averageA, reverseV: now.reverseV, surgeA: now.surgeA, [name]: v! } },
        })
      }
    />
  );
  const points = sheet.points ?? pointsOf(made);
  const point = (name: keyof ForwardPoints) => (
    <QuantityField
      key={name}
      path={`rectifier.${name}` as FieldPath}
      value={points[name]}
      check={(v) => faultOf({ ...points, [name]: v })}
      onCommit={(v) => setSheet({ points: { ...points, [name]: v! } })}
    />
  );
  return (
    <div className="space-y-4 text-[14px]">
      <section>
        <h3 className="text-[16px] font-semibold">{rated ? 'Ratings, yours' : `Ratings of the class: ${made.name}`}</h3>
        <div className="grid grid-cols-3 gap-3">{(['averageA', 'reverseV', 'surgeA'] as const).map(rating)}</div>
      </section>
      <section>
        <h3 className="text-[16px] font-semibold">
          {sheet.points
            ? 'Two points of its forward curve, yours'
            : 'Two points of its forward curve, as the class has them'}
        </h3>
        <p className="text-quiet">At 25 °C, from the data sheet or measured with a pulse too short to warm it.</p>
        <div className="grid grid-cols-4 gap-3">{(['lowA', 'lowV', 'highA', 'highV'] as const).map(point)}</div>
      </section>
      <section>
        <h3 className="text-[16px] font-semibold">Heat</h3>
        <div className="grid grid-cols-3 gap-3">
          {made.technology !== 'valve' && (
            <QuantityField
              path="rectifier.jcKPerW"
              value={sheet.jcKPerW}
              placeholder={`class ${formatNominal(made.jcKPerW, 'K/W')}`}
              onCommit={(jcKPerW) => setSheet({ jcKPerW })}
            />
          )}
          <QuantityField
            path="rectifier.jaKPerW"
            value={sheet.jaKPerW}
            placeholder={`class ${formatNominal(made.jaKPerW, 'K/W')}`}
            onCommit={(jaKPerW) => setSheet({ jaKPerW })}
          />
        </div>
      </section>
      <button
        type="button"
        className="btn"
        disabled={!rated && !rectifier.sheet}
        onClick={() => edit({ rectifier: { rated: null, sheet: null } })}
      >
        Back to the class
      </button>
    </div>
  );
}

/** The class's own curve at a hundredth of its mean current and at all of it. */
function pointsOf(made: ReturnType<typeof diodeClass>): ForwardPoints {
  const lowA = 0.01 * made.averageA;
  const highA = made.averageA;
  const rounded = (v: number) => Number(v.toPrecision(3));
  return { lowA, lowV: rounded(forwardV(made.law, lowA)), highA, highV: rounded(forwardV(made.law, highA)) };
}

function faultOf({ lowA, lowV, highA, highV }: ForwardPoints): string | null {
  if (!farEnoughApart(lowA, highA))
    return `The higher current has to be at least three times the ${formatQuantity(lowA, 'A')}.`;
  return highV <= lowV ? `More current takes more volts: above the ${formatQuantity(lowV, 'V')}.` : null;
}
