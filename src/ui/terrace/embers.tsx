import type { Band, Picture } from '@/core/judge/picture';
import type { StationId } from '@/core/judge/verdict';
import { regulatorModel } from '@/core/parts/regulators';
import { formatQuantity } from '@/core/quantity/format';
import type { Columns } from '@/ui/terrace/geometry';

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

/** Watts leaving under each station: by area, redder where it gets hot; what reaches the load is a ring, not an ember. */
export function Embers({ picture, band, cols, top, height, onOpen }: Props) {
  const point = picture.points[band];
  const { watts, heat } = point;
  const limitC = regulatorModel(picture.design.regulator)?.pass.junctionMaxC ?? 125;
  const row = [
    { station: 'winding' as const, watts: watts.winding, warm: 0.35, ring: 0, figure: 'winding-loss' },
    { station: 'rectifier' as const, watts: watts.rectifier, warm: 0.55, ring: 0, figure: 'diode-loss' },
    { station: 'reservoir' as const, watts: watts.reservoir, warm: 0.2, ring: 0, figure: 'reservoir-current' },
    ...(heat
      ? [
          {
            station: 'regulator' as const,
            watts: watts.regulator + watts.outputs,
            warm: Math.min(1, Math.max(0.2, (heat.junctionC - 40) / 85)),
            ring: (heat.junctionC - picture.design.heat.ambientC) / (limitC - picture.design.heat.ambientC),
            figure: 'regulator-watts',
          },
        ]
      : []),
  ];
  const most = Math.max(...row.map((r) => r.watts), 0.6 * watts.load, 1e-6);
  const radius = (w: number) => LARGEST_PX * Math.sqrt(Math.max(w, 0) / most);
  const middle = ([a, b]: [number, number]) => (a + b) / 2;
  const cy = top + 28;
  const lost = row.reduce((sum, r) => sum + r.watts, 0);
  return (
    <g>
      {row.map(({ station, watts: w, warm, figure, ring }) => (
        <g key={station} onClick={onOpen(station, figure)} className="cursor-pointer hover:underline">
          <circle
            cx={middle(cols[station])}
            cy={cy}
            r={Math.max(1.2, radius(w))}
            fill={`color-mix(in oklab, var(--ember) ${Math.round(100 - warm * 75)}%, var(--fail))`}
            opacity={0.45 + 0.5 * warm}
          />
          {ring > 0 && <Ring x={middle(cols[station])} y={cy} radius={Math.max(1.2, radius(w)) + 4} share={ring} />}
          <text
            x={middle(cols[station])}
            y={top + height - 5}
            textAnchor="middle"
            fontSize="13"
            fontWeight="600"
            fill="var(--ink)"
          >
            {formatQuantity(w, 'W', 2)}
            {station === 'regulator' && heat && (
              <tspan
                fill={heat.junctionC > limitC ? 'var(--fail)' : 'var(--quiet)'}
                fontWeight={heat.junctionC > limitC ? 700 : 500}
              >{`  at ${formatQuantity(heat.junctionC, '°C')}`}</tspan>
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
      >{`${formatQuantity(watts.load, 'W', 2)} used`}</text>
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
      >{`${formatQuantity(lost, 'W', 2)} lost`}</text>
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
