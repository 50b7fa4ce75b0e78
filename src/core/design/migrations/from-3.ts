import { filled, type Json } from './json';

/** Version 4 knows boxes, fans and a regulator ahead of the regulator. */
export function from3(d: Json): Json {
  return {
    ...d,
    version: 4,
    preRegulator: { kind: 'none' },
    heat: filled(d, 'heat', {
      ambientC: 40,
      sinkKPerW: null,
      interface: 'paste',
      box: 'open',
      boxCm2: 1500,
      sinkOutside: true,
      sharedWithRectifier: false,
      fan: 'none',
      fanOnC: 55,
    }),
  };
}
