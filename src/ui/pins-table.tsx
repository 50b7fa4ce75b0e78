import type { NetPart } from '@/core/netlist/netlist';

/** The pins of a part, each with what it is joined to. */
export function PinsTable({ pins }: Pick<NetPart, 'pins'>) {
  return (
    <table className="mt-2 w-full text-[14px]">
      <caption className="text-left text-[13px] text-quiet">Joined to</caption>
      <tbody>
        {pins.map((p) => (
          <tr key={p.name} className="border-t border-rule/60">
            <th className="py-0.5 text-left font-normal text-quiet">{p.name}</th>
            <td className="break-words py-0.5 font-semibold">{p.net}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
