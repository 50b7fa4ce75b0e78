import type { HeldAgainst } from '@/core/bench/find-fault';
import type { TerraceLine } from '@/core/bench/terrace-line';
import { formatQuantity } from '@/core/quantity/format';
import { axisTicks, columns, wavePoints, pathOf, steps, voltAxis, type Point } from '@/core/picture/terrace-geometry';

const WIDTH = 440;
const HEIGHT = 216;
const AXIS = 48;
const FLOOR = HEIGHT - 22;

interface Props {
  sound: TerraceLine;
  /** The suspect's; null where only the sound one can be drawn. */
  faulty: TerraceLine | null;
  readings: readonly HeldAgainst[];
  /** Whether something stands between rail and output. */
  regulated: boolean;
}

/** The terrace of the suspected fault over that of the supply as designed, both at full load, with what was read there. */
export function FaultTerrace({ sound, faulty, readings, regulated }: Props) {
  const cols = columns(AXIS, WIDTH, { regulated });
  const dots = readings.filter((r) => r.drawnAt !== null);
  const lines = faulty ? [sound, faulty] : [sound];
  const highest = Math.max(
    ...lines.map((l) => Math.max(l.levels.openPeakV, l.levels.reservoirMaxV)),
    ...dots.map((d) => d.read),
  );
  const lowest = Math.min(
    ...lines.flatMap((l) => [l.levels.reservoirMinV, l.levels.outputMinV]),
    ...dots.map((d) => d.read),
  );
  const axis = voltAxis(Math.max(0, lowest), highest * 1.02, 8, FLOOR, 12);
  const { y } = axis;
  const middle = ([a, b]: [number, number]) => (a + b) / 2;
  const path = (line: TerraceLine): string => {
    const wave = wavePoints(line.reservoirV, cols.reservoir);
    const { outputMinV, outputMaxV } = line.levels;
    const start: Point = [cols.mains[0], line.levels.openPeakV];
    const end: Point[] = [
      [middle(cols.regulator), wave.at(-1)![1]],
      [middle(cols.regulator), (outputMinV + outputMaxV) / 2],
      [cols.load[1], (outputMinV + outputMaxV) / 2],
    ];
    return pathOf([start, ...steps(line.levels, cols, wave[0]![1]), ...wave, ...end], y);
  };
  return (
    <figure>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full" role="img" aria-label={inWords(sound, faulty)}>
        {axisTicks(axis)
          .filter((_, n, all) => n % Math.ceil(all.length / 4) === 0)
          .map((v) => (
            <g key={v}>
              <path d={`M${AXIS} ${y(v)}H${WIDTH}`} stroke="var(--rule)" />
              <text x={AXIS - 5} y={y(v) + 4} textAnchor="end" fontSize="12" fill="var(--quiet)">
                {formatQuantity(v, 'V')}
              </text>
            </g>
          ))}
        <path d={`M${AXIS} ${FLOOR}H${WIDTH}`} stroke="var(--edge)" />
        <path d={path(sound)} fill="none" stroke="var(--volt)" strokeWidth="1.6" strokeDasharray="5 3" />
        {faulty && <path d={path(faulty)} fill="none" stroke="var(--ember)" strokeWidth="2.4" strokeLinejoin="round" />}
        {dots.map((d) => (
          <circle
            key={d.label}
            cx={middle(d.drawnAt === 'output' ? cols.load : cols.reservoir)}
            cy={y(d.read)}
            r="4.5"
            fill="var(--ink)"
            stroke="var(--paper)"
            strokeWidth="1.5"
          />
        ))}
        {(
          [
            ['winding', cols.winding],
            ['reservoir', cols.reservoir],
            ...(regulated ? ([['regulator', cols.regulator]] as const) : []),
            ['load', cols.load],
          ] as const
        ).map(([name, col]) => (
          <text key={name} x={middle(col)} y={HEIGHT - 6} textAnchor="middle" fontSize="12.5" fill="var(--quiet)">
            {name}
          </text>
        ))}
      </svg>
      <figcaption className="flex flex-wrap gap-x-4 text-[13px] text-quiet">
        <span>
          <span
            aria-hidden="true"
            className="mr-1 inline-block w-5 border-t-2 border-dashed border-volt align-middle"
          />
          as designed
        </span>
        {faulty && (
          <span>
            <span aria-hidden="true" className="mr-1 inline-block w-5 border-t-[3px] border-ember align-middle" />
            with this fault
          </span>
        )}
        {dots.length > 0 && (
          <span>
            <span aria-hidden="true" className="mr-1.5 inline-block h-2.5 w-2.5 rounded-full bg-ink align-middle" />
            read, mean
          </span>
        )}
        <span>at full load and the mains as read, two cycles</span>
      </figcaption>
    </figure>
  );
}

/** The drawing for who cannot see it. */
function inWords(sound: TerraceLine, faulty: TerraceLine | null): string {
  const of = ({ levels: l }: TerraceLine) =>
    `winding crest ${formatQuantity(l.openPeakV, 'V')}, reservoir ${formatQuantity(l.reservoirMinV, 'V')} to ${formatQuantity(l.reservoirMaxV, 'V')}, output ${formatQuantity(l.outputMinV, 'V')}`;
  return `Terrace at full load. As designed: ${of(sound)}.${faulty ? ` With this fault: ${of(faulty)}.` : ''}`;
}
