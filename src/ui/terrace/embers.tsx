import type { Band, Picture } from '@/core/picture/picture';
import type { StationId } from '@/core/judge/verdict';
import type { StationHeat } from '@/core/study/warmth';
import { formatQuantity } from '@/core/quantity/format';
import type { Columns } from '@/core/picture/terrace-geometry';

interface Props {
  picture: Picture;
  band: Band;
  cols: Columns;
  top: number;
  height: number;
  /** Makes what opens the working of one figure. */
  onOpen(station: StationId, figure: string): () => void;
}

const LARGEST_PX = 23;

type Heat = StationHeat[keyof StationHeat];

/** Redness of an ember: a little where nothing is known of its heat, all of it at the limit. */
const warmth = (share: number) => Math.min(1, Math.max(0.2, share));

/** Watts leaving under each station: by area, redder where it gets hot; what reaches the load is a ring, not an ember. */
export function Embers({ picture, band, cols, top, height, onOpen }: Props) {
  const point = picture.points[band];
  const { watts } = point;
  const { design } = picture;
  const temps = picture.stationHeat[band];
  const row: { station: keyof StationHeat | 'reservoir'; watts: number; figure: string; heat?: Heat }[] = [
    { station: 'winding', watts: watts.winding, figure: 'winding-loss', heat: temps.winding },
    { station: 'rectifier', watts: watts.rectifier, figure: 'diode-loss', heat: temps.rectifier },
    { station: 'reservoir', watts: watts.reservoir, figure: 'reservoir-current' },
    ...(temps.regulator || watts.outputs > 0
      ? [
          {
            station: 'regulator' as const,
            watts: watts.regulator + watts.outputs,
            figure: 'regulator-watts',
            heat: temps.regulator,
          },
        ]
      : []),
  ];
  /** How far from the room to its limit. */
  const share = (heat: Heat) => (heat ? (heat.tempC - design.heat.ambientC) / (heat.limitC - design.heat.ambientC) : 0);
  const most = Math.max(...row.map((r) => r.watts), 0.6 * watts.load, 1e-6);
  const radius = (w: number) => LARGEST_PX * Math.sqrt(Math.max(w, 0) / most);
  const middle = ([a, b]: [number, number]) => (a + b) / 2;
  const cy = top + 28;
  const lost = row.reduce((sum, r) => sum + r.watts, 0);
  return (
    <g>
      {row.map(({ station, watts: w, figure, heat }) => (
        <g key={station} onClick={onOpen(station, figure)} className="cursor-pointer hover:underline">
          <circle
            cx={middle(cols[station])}
            cy={cy}
            r={Math.max(1.2, radius(w))}
            fill={`color-mix(in oklab, var(--ember) ${Math.round(100 - warmth(share(heat)) * 75)}%, var(--fail))`}
            opacity={0.45 + 0.5 * warmth(share(heat))}
          />
          {heat && share(heat) > 0.03 && (
            <Ring x={middle(cols[station])} y={cy} radius={Math.max(1.2, radius(w)) + 4} share={share(heat)} />
          )}
          <text
            x={middle(cols[station])}
            y={top + height - 5}
            textAnchor="middle"
            fontSize="13"
            fontWeight="600"
            fill="var(--ink)"
          >
            {formatQuantity(w, 'W')}
            {heat && (station === 'regulator' || heat.tempC > heat.limitC - 15) && (
              <tspan
                fill={heat.tempC > heat.limitC ? 'var(--fail)' : 'var(--quiet)'}
                fontWeight={heat.tempC > heat.limitC ? 700 : 500}
              >{`  at ${formatQuantity(heat.tempC, '°C')}`}</tspan>
            )}
          </text>
        </g>
      ))}
      <circle
        cx={middle(cols.load)}
        cy={cy}
        r={Math.min(LARGEST_PX, Math.max(2, radius(watts.load)))}
        fill="none"
        stroke="var(--volt)"
        strokeWidth="2"
      />
      <text
        x={middle(cols.load)}
        y={top + height - 5}
        textAnchor="middle"
        fontSize="13"
        fontWeight="600"
        fill="var(--ink)"
      >{`${formatQuantity(watts.load, 'W')} used`}</text>
      <text x={middle(cols.mains)} y={cy + 4} textAnchor="middle" fontSize="13" fill="var(--quiet)">
        embers
      </text>
      <text
        x={middle(cols.mains)}
        y={top + height - 5}
        textAnchor="middle"
        fontSize="13"
        fontWeight="600"
        fill="var(--ink)"
      >{`${formatQuantity(lost, 'W')} lost`}</text>
    </g>
  );
}

/** How far a part has warmed from the room towards its limit: a ring that closes there, and turns to failure beyond. */
function Ring({ x, y, radius, share }: { x: number; y: number; radius: number; share: number }) {
  const round = 2 * Math.PI * radius;
  const over = share > 1;
  return (
    <g fill="none" strokeWidth="3" data-testid="ember-ring">
      <circle cx={x} cy={y} r={radius} stroke="var(--rule)" />
      <circle
        cx={x}
        cy={y}
        r={radius}
        stroke={over ? 'var(--fail)' : 'var(--ember)'}
        strokeDasharray={`${round * Math.min(1, share)} ${round}`}
        transform={`rotate(-90 ${x} ${y})`}
      />
    </g>
  );
}
