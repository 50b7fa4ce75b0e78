import type { Block, PlacedBlock, Spot } from '@/core/box/block';
import type { Size } from '@/core/parts/footprints';
import type { BoxFace } from '@/core/design/design';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';

const FACES: Readonly<Record<BoxFace, string>> = { floor: 'floor', front: 'front', rear: 'rear' };
const SIDES = [
  ['wMm', 'Width'],
  ['dMm', 'Depth'],
  ['hMm', 'Height'],
] as const;

/** The part in hand: where it stands, how large it is, and back to where the program would put it. */
export function BlockCard({
  placed: { block, spot, byHand },
  onMove,
  onSize,
  onFree,
}: {
  placed: PlacedBlock;
  onMove(spot: Spot): void;
  /** Null: as typical again. */
  onSize(size: Size | null): void;
  onFree(): void;
}) {
  const { size } = block;
  return (
    <section aria-label={`Part ${block.label}`} className="border-l-2 border-volt pl-3">
      <h2 className="text-[15px] font-semibold">{block.label}</h2>
      <p className="text-[14px] text-quiet">{block.what}</p>
      <div className="mt-2 grid grid-cols-3 gap-x-2 gap-y-2">
        <QuantityField
          path="box.placeMm"
          label="From the left"
          value={spot.xMm}
          step={(v, d) => v + d}
          onCommit={(v) => onMove({ ...spot, xMm: v! })}
        />
        <QuantityField
          path="box.placeMm"
          label={spot.face === 'floor' ? 'From the front' : 'From below'}
          value={spot.yMm}
          step={(v, d) => v + d}
          onCommit={(v) => onMove({ ...spot, yMm: v! })}
        />
        {block.may.length > 1 ? (
          <ChoiceField
            label="Where"
            value={spot.face}
            options={block.may.map((value) => ({ value, label: FACES[value] }))}
            onChange={(face) => onMove({ ...spot, face })}
          />
        ) : (
          <span />
        )}
        {SIDES.map(([side, label]) => (
          <QuantityField
            key={side}
            path="box.sizeMm"
            label={label}
            value={size[side]}
            step={(v, d) => v + d}
            onCommit={(v) => onSize({ ...size, [side]: v! })}
          />
        ))}
      </div>
      <p className="mt-1 text-[13px] text-quiet">{ORIGINS[block.origin]}</p>
      <div className="mt-1 flex flex-wrap gap-1.5">
        <button type="button" className="btn" onClick={() => onMove({ ...spot, turned: !spot.turned })}>
          Turn
        </button>
        {byHand && (
          <button type="button" className="btn" onClick={onFree}>
            Let it find its place
          </button>
        )}
        {block.origin === 'measured' && (
          <button type="button" className="btn" onClick={() => onSize(null)}>
            Typical size
          </button>
        )}
      </div>
    </section>
  );
}

const ORIGINS: Readonly<Record<Block['origin'], string>> = {
  typical: 'Typical size. Measure the part in hand and type over it.',
  'rule of thumb': 'Size by rule of thumb. Measure the part in hand and type over it.',
  drawer: 'Its height is from your drawer, the rest typical. Measure the part in hand and type over it.',
  measured: 'Your own size.',
};
