'use client';

import { useMemo, useState } from 'react';
import type { Inside, Spot } from '@/core/box/block';
import { clearancesOf, spotsOf } from '@/core/box/as-placed';
import type { BoxPlan } from '@/core/box/box-plan';
import { STANDARD_BOXES } from '@/core/box/standard-boxes';
import type { Design, Enclosure } from '@/core/design/design';
import { fieldLimit } from '@/core/design/limits';
import { Alert } from '@/ui/alert';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { Room } from '@/ui/room';
import { useDesign, useEdit } from '@/ui/session';
import { useHazardousNets } from '@/ui/use-hazardous-nets';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import { BlockCard } from './block-card';
import { BoxFigure } from './box-figure';
import { BoxHeat } from './box-heat';
import { Distances } from './distances';
import { OwnParts } from './own-part';
import { TemplateFiles } from './template-files';
import { useDrawerBoxes } from './use-drawer-boxes';

const askBox = (solver: RemoteSolver, design: Design) => solver.box(design);
const CORES = [
  { value: 'laminated', label: 'laminated' },
  { value: 'ring', label: 'ring' },
] as const;
const BOX_CAUTIONS = {
  'class I':
    'Class I: every metal part that can be touched is earthed, on a screw of its own, paint scraped off under it.',
  'class II':
    'Class II: two layers of insulation between the mains and whatever can be touched, and no metal screw through both.',
} as const;
const SMALLEST = 'smallest';
const OWN = 'own';
const { min: NEAREST_MM, max: FARTHEST_MM } = fieldLimit('box.placeMm');
/** A place that can be kept, however far a part is dragged. */
const within = (mm: number) => Math.min(FARTHEST_MM, Math.max(NEAREST_MM, mm));
const sizeWords = ({ wMm, dMm, hMm }: Inside) => `${wMm} × ${dMm} × ${hMm}`;

/** Box: whether it all goes in, where, and the template to drill it by. */
export function Box() {
  const design = useDesign();
  const edit = useEdit();
  const { box } = design.build;
  const { value, trouble } = useSolved(askBox);
  const [selected, setSelected] = useState<string | null>(null);
  const [moving, setMoving] = useState<{ id: string; spot: Spot } | null>(null);
  const drawer = useDrawerBoxes();
  const change = (patch: Partial<Enclosure>) => edit({ build: { box: { ...box, ...patch } } });
  // What was moved by hand is there at once; the rest follows when it has been placed anew.
  const plan = useMemo((): BoxPlan | null => {
    if (!value) return null;
    const byHand = spotsOf(
      box,
      value.placed.map((p) => p.block),
    );
    return {
      ...value,
      inside: box.inside ?? value.inside,
      placed: value.placed.map((p) => {
        const hand = byHand.get(p.block.id);
        const spot = moving?.id === p.block.id ? moving.spot : (hand ?? p.spot);
        return { ...p, spot, byHand: hand !== undefined };
      }),
    };
  }, [value, box, moving]);
  const clearances = useMemo(() => (plan ? clearancesOf(design, plan) : []), [design, plan]);
  const broken = useMemo(() => new Set(clearances.filter((c) => !c.holds).flatMap((c) => c.blocks)), [clearances]);
  const nets = useHazardousNets();
  const hazardous = new Set(
    plan?.placed
      .filter(({ block: { carries, nets: on } }) => carries === 'mains' || on.some((n) => nets.has(n)))
      .map((p) => p.block.id),
  );
  const part = plan?.placed.find((p) => p.block.id === selected) ?? null;
  const move = (id: string, spot: Spot) => {
    setMoving(null);
    const kept = { ...spot, xMm: within(spot.xMm), yMm: within(spot.yMm) };
    // Once a hand is at it nothing else moves by itself.
    change({ places: plan!.placed.map((p) => ({ block: p.block.id, ...(p.block.id === id ? kept : p.spot) })) });
  };
  const boxes = [
    ...STANDARD_BOXES.map((b) => ({ label: sizeWords(b), inside: b })),
    ...drawer.map(({ name, inside: own }) => ({ label: `drawer: ${name}, ${sizeWords(own)}`, inside: own })),
  ];
  const { inside } = box;
  const size = inside ? (boxes.findLast((b) => sizeWords(b.inside) === sizeWords(inside))?.label ?? OWN) : SMALLEST;
  const fits = plan !== null && plan.left.length === 0 && broken.size === 0;
  return (
    <Room name={null} className="">
      <div className="px-5 pb-10 pt-3">
        <h1 className="text-[23px] font-semibold leading-7">
          {plan === null
            ? 'Does it fit?'
            : fits
              ? `It fits ${sizeWords(plan.inside)} mm`
              : `It does not fit ${sizeWords(plan.inside)} mm yet`}
        </h1>
        {plan && value && (
          <p className="max-w-[900px] text-[15px]">
            {value.smallest.inside
              ? `The smallest standard box for it is ${sizeWords(value.smallest.inside)} mm inside.`
              : 'No standard box holds it.'}
            {value.smallest.smaller && ` In ${sizeWords(value.smallest.smaller.inside)}: ${value.smallest.smaller.why}`}
          </p>
        )}
        {design.source.kind === 'mains' && (
          <p role="note" className="mt-2 max-w-[900px] border-l-[3px] border-fail pl-3 text-[14.5px]">
            {BOX_CAUTIONS[design.mainsSide.insulation]} Nothing of the mains within 8 mm of low volts, wires tied so
            that one that comes loose reaches nothing. Local rules come first.
          </p>
        )}
        {trouble && <Alert className="mt-2">{trouble}</Alert>}
        {plan?.left.map(({ block, why }) => (
          <Alert key={block.id} className="mt-2">
            {why}
          </Alert>
        ))}
        {!plan && !trouble && (
          <p className="py-6 text-quiet" aria-live="polite">
            Placing…
          </p>
        )}
        {plan && (
          <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-4 min-[1200px]:grid-cols-[minmax(0,1fr)_360px]">
            <div className="min-w-0">
              <BoxFigure
                inside={plan.inside}
                placed={plan.placed}
                hazardous={hazardous}
                broken={broken}
                selected={selected}
                onSelect={setSelected}
                onMoving={(id, spot) => setMoving(spot && { id, spot })}
                onMove={move}
              />
            </div>
            <aside
              aria-label="Box and distances"
              className="min-w-0 space-y-4 max-[1199px]:grid max-[1199px]:grid-cols-2 max-[1199px]:gap-x-6 max-[1199px]:space-y-0 max-[1199px]:[&>*]:mb-4"
            >
              {part && (
                <BlockCard
                  placed={part}
                  onMove={(spot) => move(part.block.id, spot)}
                  onSize={(to) =>
                    change({
                      sizes: [
                        ...box.sizes.filter((s) => s.block !== part.block.id),
                        ...(to ? [{ block: part.block.id, ...to }] : []),
                      ],
                    })
                  }
                  onFree={() => change({ places: box.places.filter((p) => p.block !== part.block.id) })}
                />
              )}
              <Distances
                clearances={clearances}
                blocks={plan.placed.map((p) => p.block)}
                selected={selected}
                onSelect={setSelected}
              />
              <div className="grid grid-cols-2 gap-2 border-t border-rule pt-2">
                <ChoiceField
                  label="Box, inside, mm"
                  value={size}
                  options={[
                    { value: SMALLEST, label: 'the smallest' },
                    ...boxes.map(({ label }) => ({ value: label, label })),
                    { value: OWN, label: 'its own size' },
                  ]}
                  onChange={(v) =>
                    change({
                      inside: v === SMALLEST ? null : (boxes.find((b) => b.label === v)?.inside ?? plan.inside),
                    })
                  }
                />
                <ChoiceField
                  label="Transformer’s core"
                  value={box.core}
                  options={CORES}
                  onChange={(core) => change({ core })}
                />
                {box.inside && (
                  <div className="col-span-2 grid grid-cols-3 gap-2">
                    {(
                      [
                        ['wMm', 'Width inside'],
                        ['dMm', 'Depth inside'],
                        ['hMm', 'Height inside'],
                      ] as const
                    ).map(([side, label]) => (
                      <QuantityField
                        key={side}
                        path="box.insideMm"
                        label={label}
                        value={box.inside![side]}
                        step={(v, d) => v + 5 * d}
                        onCommit={(v) => change({ inside: { ...box.inside!, [side]: v! } })}
                      />
                    ))}
                  </div>
                )}
                {box.places.length > 0 && (
                  <button
                    type="button"
                    className="btn col-span-2 justify-self-start"
                    onClick={() => change({ places: [] })}
                  >
                    Place everything anew
                  </button>
                )}
              </div>
              <BoxHeat inside={plan.inside} />
              <OwnParts box={box} onChange={(own) => change({ own })} />
              <TemplateFiles plan={plan} name={design.name} />
            </aside>
          </div>
        )}
      </div>
    </Room>
  );
}
