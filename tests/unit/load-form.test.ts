import { MAINS_PRESETS } from '@/core/design/defaults';
import { loadSchema } from '@/places/new/load-schema';
import { valueOf, type LoadForm } from '@/places/new/load-values';

const good: LoadForm = {
  name: '',
  outputV: '15 V',
  outputA: '600 mA',
  tolerancePct: '5 %',
  rippleVpp: '5 mV',
  kind: 'current',
  mains: MAINS_PRESETS[0]!.id,
  feed: 'mains',
  feedV: '12 V',
  feedAmount: '1',
};

async function fault(change: Partial<LoadForm>): Promise<string> {
  try {
    await loadSchema.validate({ ...good, ...change });
  } catch (error) {
    return (error as Error).message;
  }
  return '';
}

test('a load as somebody would write it is taken', async () => {
  expect(await fault({})).toBe('');
  expect(await fault({ outputV: '12', outputA: '0,5', rippleVpp: '10m' })).toBe('');
  expect(valueOf('600 mA', 'demand.outputA')).toBeCloseTo(0.6, 12);
  expect(valueOf('0,5', 'demand.outputA')).toBeCloseTo(0.5, 12);
});

test.each<[Partial<LoadForm>, RegExp]>([
  [{ outputV: '' }, /Nothing here yet/],
  [{ outputV: 'fifteen' }, /'fifteen' is not a number/],
  [{ outputV: '0' }, /at least 500 mV/],
  [{ outputA: '-1' }, /cannot be negative/],
  [{ outputA: '1e9' }, /beyond any real supply/],
  [{ tolerancePct: '5 V' }, /not a unit of per cent/],
  [{ tolerancePct: '0' }, /at least/],
  [{ rippleVpp: '1e-9' }, /at least 1\.00 µV/],
  [{ name: 'x'.repeat(81) }, /80 letters fit/],
])('%p is told in a sentence', async (change, sentence) => {
  expect(await fault(change)).toMatch(sentence);
});
