import { filled, type Json } from './json';

/** Version 5 knows sources of direct current, further outputs, one sink for all and parts solved as warm as they get. */
export function from4(d: Json): Json {
  return {
    ...d,
    version: 5,
    source: { kind: 'mains' },
    outputs: [],
    heat: filled(d, 'heat', { oneSink: false, together: false }),
  };
}
