import { useId } from 'react';

/** One of a list, each with what it is in small. */
export function OneOf({
  legend,
  options,
  chosen,
  onChoose,
}: {
  legend: string;
  options: readonly { id: string; name: string; what: string }[];
  chosen: string | undefined;
  onChoose(id: string): void;
}) {
  const group = useId();
  return (
    <fieldset>
      <legend className="text-[14px] font-semibold">{legend}</legend>
      <ul className="mt-1 max-h-[340px] overflow-y-auto">
        {options.map((o) => (
          <li key={o.id}>
            <label className="flex cursor-pointer items-start gap-2 border-t border-rule/60 py-1.5">
              <input
                type="radio"
                name={group}
                className="mt-0.5 accent-volt"
                checked={o.id === chosen}
                onChange={() => onChoose(o.id)}
              />
              <span>
                {o.name} <span className="block text-[13px] text-quiet">{o.what}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
