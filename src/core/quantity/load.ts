import { parseQuantity, type ParseResult } from './parse';

/**
 * Reads a load as builders know it: amperes ('2 A', '500mA', '2 A at 12 V'), a resistor ('10 ohm', '47R') or watts
 * ('360 W'), as the current it draws of an output. @param volts of that output, more than 0
 */
export function parseLoad(text: string, volts: number): ParseResult {
  const at = /^(.*?)(?:\bat\b|@)(.*)$/i.exec(text);
  if (at) {
    const there = parseQuantity(at[2]!, 'V');
    if (!there.ok) return there;
    if (there.value <= 0) return { ok: false, error: 'A load needs some volts to draw a current: more than 0 V.' };
    const amps = parseLoad(at[1]!, there.value);
    // Of a resistor the current grows with the volts; amperes and watts are what they are at any.
    if (!amps.ok || !isOhms(at[1]!)) return amps;
    return { ok: true, value: (amps.value * volts) / there.value };
  }
  const amps = parseQuantity(text, 'A');
  if (amps.ok) return amps;
  const watts = parseQuantity(text, 'W');
  if (watts.ok) return { ok: true, value: watts.value / volts };
  const ohms = parseQuantity(text, 'ohm');
  if (!ohms.ok) return { ok: false, error: `${amps.error.replace(/\.$/, '')}; ohms and watts are read too.` };
  if (ohms.value <= 0) return { ok: false, error: 'A load of no ohms is a short: type more than 0.' };
  return { ok: true, value: volts / ohms.value };
}

function isOhms(text: string): boolean {
  return !parseQuantity(text, 'A').ok && !parseQuantity(text, 'W').ok;
}
