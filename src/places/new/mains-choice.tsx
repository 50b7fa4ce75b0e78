import { MAINS_PRESETS, type MainsPreset } from '@/core/design/defaults';

/** The mains of one name; the first where a name is unknown. */
export function presetOf(id: string | undefined): MainsPreset {
  return MAINS_PRESETS.find((p) => p.id === id) ?? MAINS_PRESETS[0]!;
}

/** The outlets there are, to choose from. */
export function MainsOptions() {
  return MAINS_PRESETS.map((p) => (
    <option key={p.id} value={p.id}>
      {p.name}, −{p.mains.lowPct}/+{p.mains.highPct} %
    </option>
  ));
}

/** Which outlet it hangs on. */
export function MainsChoice({ id, value, onChange }: { id: string; value: string; onChange(id: string): void }) {
  return (
    <div>
      <label htmlFor={id} className="block text-[14px] font-semibold">
        Mains
      </label>
      <select id={id} className="field" value={presetOf(value).id} onChange={(e) => onChange(e.target.value)}>
        <MainsOptions />
      </select>
    </div>
  );
}
