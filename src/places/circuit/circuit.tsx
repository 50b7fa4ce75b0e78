'use client';

import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import { circuitDrawing } from '@/core/build/circuit/circuit-drawing';
import { resistorRatings } from '@/core/build/circuit/resistor-ratings';
import { circuitSvg } from '@/core/build/circuit/circuit-svg';
import type { Convention } from '@/core/build/circuit/strokes';
import { stationOf } from '@/core/build/station-of';
import { saidVolts } from '@/core/bench/said-volts';
import { netlistOf } from '@/core/netlist/netlist-of';
import { netlistCsv, netlistJson } from '@/core/netlist/netlist-files';
import { picturesOf } from '@/core/sheet/log-mentions';
import { stationFigures } from '@/core/picture/station-figures';
import { summaryOf } from '@/core/picture/summary';
import type { Design } from '@/core/design/design';
import type { StationId } from '@/core/picture/station';
import { Alert } from '@/ui/alert';
import { ChoiceField } from '@/ui/choice-field';
import { download, fileName } from '@/ui/download';
import { roomPath } from '@/ui/places';
import { Room } from '@/ui/room';
import { useDesign, useView } from '@/ui/session';
import { useHazardousNets } from '@/ui/use-hazardous-nets';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';
import { CircuitFigure } from './circuit-figure';
import { PartCard } from './part-card';
import { StationStrip } from './station-strip';
import { TestCard } from './test-card';

const askBill = (solver: RemoteSolver, design: Design) => solver.bill(design);
const askBench = (solver: RemoteSolver, design: Design) => solver.bench(design);
const CONVENTIONS: readonly { value: Convention; label: string }[] = [
  { value: 'rectangles', label: 'Rectangles' },
  { value: 'zigzags', label: 'Zigzags' },
];

/** Circuit: what is joined to what, drawn from the design itself; each part with its pins, verdicts and value. */
export function Circuit() {
  const design = useDesign();
  const id = useView((s) => s.id);
  const picture = useView((s) => s.picture);
  const trouble = useView((s) => s.trouble);
  const { value: points } = useSolved(askBench);
  const { value: bill } = useSolved(askBill);
  const [convention, setConvention] = useState<Convention>('rectangles');
  const [opened, setOpened] = useState<string | null>(null);
  const netlist = useMemo(() => netlistOf(design), [design]);
  const drawing = useMemo(() => {
    return circuitDrawing(netlist, saidVolts(netlist, points ?? []), resistorRatings(netlist, bill ?? []));
  }, [netlist, points, bill]);
  const hazardous = useHazardousNets();
  const summary = useMemo(() => picture && summaryOf(picture), [picture]);
  const part = netlist.parts.find((p) => p.ref === opened) ?? null;
  const station = part && stationOf(part);
  const lit = new Set(
    opened?.startsWith('TP')
      ? [opened]
      : part
        ? netlist.parts.filter((p) => p.line === part.line).map((p) => p.ref)
        : [],
  );
  const test = netlist.tests.find((t) => t.ref === opened) ?? null;
  const wordsOf = (refs: readonly string[]) => {
    const first = netlist.parts.find((p) => p.ref === refs[0]);
    if (!first) return `${refs[0]}: test point on ${netlist.tests.find((t) => t.ref === refs[0])!.net}`;
    return `${refs.join(', ')}: ${first.what}, ${first.value}${first.rating ? `, ${first.rating}` : ''}`;
  };
  const lightStation = (wanted: StationId) =>
    setOpened(netlist.parts.find((p) => stationOf(p) === wanted)?.ref ?? null);
  const name = fileName(design.name);
  return (
    <Room name={null} className="">
      <div className="px-5 pb-10 pt-3">
        <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
          <div className="mr-auto">
            <h1 className="text-[23px] font-semibold leading-7">What is joined to what</h1>
            <p className="text-quiet">
              Shaded: where the charging pulses go round; keep it short and thick.
              {hazardous.size > 0 && <span className="text-fail"> Red: nobody touches it while it is live.</span>}
            </p>
          </div>
          <ChoiceField label="Symbols" value={convention} options={CONVENTIONS} onChange={(v) => setConvention(v)} />
          <button
            type="button"
            className="btn"
            onClick={() =>
              download(`${name}-circuit.svg`, circuitSvg(drawing, convention, design.name), 'image/svg+xml')
            }
          >
            <Download size={15} /> SVG
          </button>
          <button
            type="button"
            className="btn"
            onClick={() => download(`${name}-netlist.csv`, netlistCsv(netlist), 'text/csv')}
          >
            <Download size={15} /> Netlist CSV
          </button>
          <button
            type="button"
            className="btn"
            onClick={() => download(`${name}-netlist.json`, netlistJson(netlist), 'application/json')}
          >
            <Download size={15} /> JSON
          </button>
        </div>
        {trouble && (
          <Alert className="mt-2">{trouble} The circuit is drawn; its verdicts are of the last solved state.</Alert>
        )}
        <div className="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-4 min-[1200px]:grid-cols-[minmax(0,1fr)_300px]">
          <div className="min-w-0 overflow-x-auto">
            <CircuitFigure
              drawing={drawing}
              convention={convention}
              lit={lit}
              hazardous={hazardous}
              wordsOf={wordsOf}
              onOpen={setOpened}
            />
          </div>
          <aside
            aria-label="The part looked at"
            className="min-w-0 space-y-3 bg-paper max-[1199px]:sticky max-[1199px]:bottom-0 max-[1199px]:max-h-[42vh] max-[1199px]:overflow-y-auto max-[1199px]:border-t max-[1199px]:border-rule max-[1199px]:pt-2 min-[700px]:max-[1199px]:grid min-[700px]:max-[1199px]:grid-cols-[300px_minmax(0,1fr)] min-[700px]:max-[1199px]:gap-x-5"
          >
            {picture && (
              <div className="max-w-[320px]">
                <StationStrip
                  summary={summary!}
                  regulated={picture.neededV !== null}
                  station={station}
                  onStation={lightStation}
                />
              </div>
            )}
            {test ? (
              <TestCard
                test={test}
                points={points?.filter((p) => test.points.includes(p.id)) ?? []}
                benchPath={roomPath(id, 'bench')}
                pictures={picturesOf(design, test.ref)}
              />
            ) : part ? (
              <PartCard
                key={part.ref}
                part={part}
                alike={netlist.parts.filter((p) => lit.has(p.ref))}
                verdicts={picture?.verdicts.filter((v) => v.station === station) ?? []}
                watts={
                  picture && station ? stationFigures(picture, station, 'nominal').filter((f) => f.unit === 'W') : []
                }
              />
            ) : (
              <p className="text-[14.5px] text-quiet">
                Choose a part: its legs, what it has to bear, its verdicts, its value. Or a test point: what a probe
                should read there.
              </p>
            )}
          </aside>
        </div>
      </div>
    </Room>
  );
}
