'use client';

import { figureText } from '@/core/study/figure';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useRef, useState, useSyncExternalStore } from 'react';
import { useForm, useWatch, type Resolver, type UseFormRegisterReturn } from 'react-hook-form';
import { MAINS_PRESETS } from '@/core/design/defaults';
import { sourceWords, windingWords } from '@/core/design/words';
import { formatNominal } from '@/core/quantity/format';
import type { Summary } from '@/core/picture/summary';
import { FEED_HINTS, FEED_NAMES, feedPatch, FEEDS } from '@/core/size/feeds';
import type { Proposal, SearchProgress } from '@/core/size/propose';
import { createDesign } from '@/ui/api';
import { Mark } from '@/ui/mark';
import { MiniTerrace } from '@/ui/terrace/mini-terrace';
import { StateSign } from '@/ui/state-sign';
import { Working } from '@/ui/working';
import { asked } from '@/workers/asked';
import { callback, dropSearch } from '@/workers/client';
import { FromReadings } from './from-readings';
import { FromTransformer } from './from-transformer';
import { loadOf, numberOf, valueOf, type LoadForm } from './load-values';

/** The form's schema comes with the first check, not with the page. */
const checked: Resolver<LoadForm> = async (values, context, options) => {
  const { loadResolver } = await import('./load-schema');
  return loadResolver(values, context, options);
};

type Proposed = Proposal & { summary: Summary };

const STATION_NAMES = {
  mains: 'Mains',
  winding: 'Transformer',
  rectifier: 'Rectifier',
  before: 'Input filter',
  after: 'Filter',
  reservoir: 'Reservoir',
  regulator: 'Regulator',
  load: 'Load',
} as const;

/** New from a load: say what it has to feed, get a set of standard parts that holds, with the reasons. */
export function NewFromLoad() {
  const router = useRouter();
  const form = useForm<LoadForm>({
    resolver: checked,
    mode: 'onTouched',
    defaultValues: {
      name: '',
      outputV: '15 V',
      outputA: '600 mA',
      tolerancePct: '5 %',
      rippleVpp: '5 mV',
      kind: 'current',
      feed: 'mains',
      feedV: '12 V',
      feedAmount: '1',
      mains: MAINS_PRESETS[0]!.id,
    },
  });
  const { errors } = form.formState;
  const feed = useWatch({ control: form.control, name: 'feed' });
  const [proposal, setProposal] = useState<Proposed | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [progress, setProgress] = useState<SearchProgress | null>(null);
  const searches = useRef(0);
  const ready = useSyncExternalStore(
    () => () => undefined,
    () => true,
    () => false,
  );

  async function search(values: LoadForm) {
    setBusy(true);
    setTrouble(null);
    const mains = MAINS_PRESETS.find((p) => p.id === values.mains)!.mains;
    const demand = {
      outputV: valueOf(values.outputV, 'demand.outputV'),
      outputA: loadOf(values),
      tolerancePct: valueOf(values.tolerancePct, 'demand.tolerancePct'),
      rippleVpp: valueOf(values.rippleVpp, 'demand.rippleVpp'),
      kind: values.kind,
    };
    const name =
      values.name.trim() || `${formatNominal(demand.outputV, 'V')} ${formatNominal(demand.outputA, 'A')} supply`;
    setProgress({ simulated: 0, passing: 0 });
    const mine = ++searches.current;
    const answer = await asked(
      (solver) =>
        solver.propose(
          mine,
          name,
          demand,
          mains,
          feedPatch(
            values.feed,
            numberOf(values.feedV, 'V'),
            numberOf(values.feedAmount, values.feed === 'battery' ? 'Ah' : 'A'),
          ),
          callback(setProgress),
        ),
      'search',
      () => mine === searches.current,
    );
    if (mine !== searches.current) return;
    setProgress(null);
    setBusy(false);
    if (!answer.ok) setTrouble(answer.error);
    else if (answer.value) setProposal(answer.value);
  }

  function stop() {
    searches.current++;
    dropSearch(true);
    setProgress(null);
    setBusy(false);
  }

  async function take() {
    if (!proposal) return;
    setBusy(true);
    const created = await createDesign(proposal.design);
    setBusy(false);
    if (created.ok) router.push(`/design/${created.value.id}`);
    else setTrouble(created.refusal.sentence);
  }

  return (
    <div className="mx-auto max-w-[1240px] px-5 pb-10">
      <header className="flex items-center gap-3 py-4">
        <Link href="/" aria-label="Ember Rail: to the shelf">
          <Mark size={34} />
        </Link>
        <div>
          <h1 className="text-[25px] font-semibold leading-7">What must it feed?</h1>
          <p className="text-[14px] text-quiet">Type as you write it: 15 V, 600m, 0,5 A, 5 mV</p>
        </div>
      </header>
      <main className="grid grid-cols-[minmax(260px,340px)_minmax(0,1fr)] gap-8">
        <div>
          <form noValidate onSubmit={(e) => void form.handleSubmit(search)(e)}>
            {/* Nothing can be typed before the page can keep it. */}
            <fieldset disabled={!ready} className="space-y-3">
              <Field
                label="Volts"
                hint="at the load"
                error={errors.outputV?.message}
                input={form.register('outputV')}
                autoFocus
              />
              <Field
                label="Amperes"
                hint="the most it draws for long; 10 ohm or 360 W are read too"
                error={errors.outputA?.message}
                input={form.register('outputA')}
              />
              <Field
                label="May deviate, ±"
                hint="5 % suits a fixed regulator; 20 % and more can do without"
                error={errors.tolerancePct?.message}
                input={form.register('tolerancePct')}
              />
              <Field
                label="Ripple it puts up with, peak to peak"
                error={errors.rippleVpp?.message}
                input={form.register('rippleVpp')}
              />
              <div>
                <label htmlFor="kind" className="block text-[14px] font-semibold">
                  Behaves as
                </label>
                <select id="kind" className="field" {...form.register('kind')}>
                  <option value="current">Constant current</option>
                  <option value="resistance">Resistance</option>
                  <option value="power">Constant power</option>
                </select>
              </div>
              <div>
                <label htmlFor="feed" className="block text-[14px] font-semibold">
                  Fed from
                </label>
                <select id="feed" className="field" {...form.register('feed')}>
                  {FEEDS.map((f) => (
                    <option key={f} value={f}>
                      {FEED_NAMES[f]}
                    </option>
                  ))}
                </select>
                {FEED_HINTS[feed] && <p className="mt-0.5 text-[13px] leading-snug text-quiet">{FEED_HINTS[feed]}</p>}
              </div>
              {feed !== 'mains' && (
                <div className="grid grid-cols-2 gap-3">
                  <Field label="Its volts" error={errors.feedV?.message} input={form.register('feedV')} />
                  <Field
                    label={feed === 'battery' ? 'It holds, Ah' : 'Its amperes'}
                    error={errors.feedAmount?.message}
                    input={form.register('feedAmount')}
                  />
                </div>
              )}
              <div className={feed === 'mains' || feed === 'ac-adapter' ? '' : 'hidden'}>
                <label htmlFor="mains" className="block text-[14px] font-semibold">
                  Mains
                </label>
                <select id="mains" className="field" {...form.register('mains')}>
                  {MAINS_PRESETS.map((p) => (
                    <option key={p.id} value={p.id}>
                      {p.name}, −{p.mains.lowPct}/+{p.mains.highPct} %
                    </option>
                  ))}
                </select>
              </div>
              <Field label="Name" hint="optional" error={errors.name?.message} input={form.register('name')} />
              <button
                type="submit"
                className="btn btn-main !min-h-[36px] w-full justify-center text-[16px]"
                disabled={busy}
              >
                {progress ? 'Simulating…' : 'Propose a supply'}
              </button>
              {progress && (
                <div role="status" className="flex items-center justify-between gap-3">
                  <span>
                    {progress.simulated} complete sets simulated, {progress.passing} pass
                  </span>
                  <button type="button" className="btn" onClick={stop}>
                    Stop
                  </button>
                </div>
              )}
              {trouble && (
                <p role="alert" className="text-fail">
                  {trouble}
                </p>
              )}
            </fieldset>
          </form>
          <FromTransformer />
          <FromReadings />
        </div>
        <section aria-label="Proposal" aria-live="polite">
          {proposal ? (
            <ProposalCard proposal={proposal} busy={busy} onTake={() => void take()} />
          ) : (
            <div className="rounded border border-dashed border-rule p-6 text-quiet">
              <p className="serif text-[19px] text-ink">
                A transformer, rectifier, reservoir, regulator and heatsink come back,
              </p>
              <p className="mt-1">
                each from standard values, each found by simulating low line with a tired reservoir and high line with
                no load and with full load; rules of thumb only choose where to start. A line says why.
              </p>
            </div>
          )}
        </section>
      </main>
    </div>
  );
}

function ProposalCard({ proposal, busy, onTake }: { proposal: Proposed; busy: boolean; onTake(): void }) {
  const [opened, setOpened] = useState<string | null>(null);
  const { design, reasons, verdicts, shortfall, simulated, costEur, leftOut } = proposal;
  const cautions = verdicts.filter((v) => v.state === 'caution').length;
  const heading =
    design.source.kind === 'mains'
      ? `${windingWords(design)}, ${formatNominal(design.transformer.ratedVA, 'VA')}`
      : sourceWords(design);
  return (
    <div className="rounded border border-rule bg-raised p-5" data-testid="proposal">
      <div className="mb-3 grid grid-cols-[minmax(0,1fr)_minmax(0,400px)] gap-5">
        <div>
          <h2 className="text-[24px] font-semibold leading-tight">{heading}</h2>
          {shortfall ? (
            <p role="alert" className="mt-2 rounded border-2 border-fail bg-fail-soft px-3 py-2">
              {shortfall}
            </p>
          ) : (
            <p className="mt-2 flex gap-2">
              <span className="pt-1">
                <StateSign state="holds" />
              </span>{' '}
              Passes all {verdicts.filter((v) => v.state !== 'caution').length} of its verdicts
              {cautions > 0 ? `, with ${cautions} ${cautions === 1 ? 'caution' : 'cautions'}` : ''}.
            </p>
          )}
          <p className="mt-1 text-quiet">
            {simulated} complete sets were simulated. Parts cost about {costEur.toFixed(0)} EUR, by rule of thumb.
          </p>
          <button
            type="button"
            className="btn btn-main mt-4 !min-h-[36px] text-[16px]"
            disabled={busy}
            onClick={onTake}
          >
            {shortfall ? 'Open it all the same' : 'Take it and open'}
          </button>
        </div>
        <MiniTerrace summary={proposal.summary} id="proposal" />
      </div>
      <dl className="mt-2 space-y-2">
        {reasons.map((r) => (
          <div key={r.station} className="grid grid-cols-[104px_1fr] gap-3">
            <dt className="font-semibold">{STATION_NAMES[r.station]}</dt>
            <dd>{r.text}</dd>
          </div>
        ))}
      </dl>
      {leftOut.length > 0 && (
        <details className="mt-3 text-[14px] text-quiet">
          <summary className="cursor-pointer">What was left out, and why</summary>
          <ul className="list-disc pl-5">
            {leftOut.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </details>
      )}
      <ul className="mt-4 flex flex-wrap gap-x-4 gap-y-1 border-t border-rule pt-3 text-[14px]">
        {verdicts.map((v) => (
          <li key={v.id} className="flex items-center gap-1.5">
            <StateSign state={v.state} size={12} />
            <button
              type="button"
              className="num"
              aria-expanded={opened === v.id}
              onClick={() => setOpened(opened === v.id ? null : v.id)}
            >
              {v.title} <strong>{figureText(v.figure)}</strong>
            </button>
          </li>
        ))}
      </ul>
      {verdicts
        .filter((v) => v.id === opened)
        .map((v) => (
          <div key={v.id} className="mt-3 border-l-2 border-volt pl-3">
            <Working figure={v.figure} />
          </div>
        ))}
    </div>
  );
}

function Field({
  label,
  hint,
  error,
  input,
  autoFocus,
}: {
  label: string;
  hint?: string;
  error?: string;
  input: UseFormRegisterReturn;
  autoFocus?: boolean;
}) {
  const id = `load-${input.name}`;
  return (
    <div>
      <label htmlFor={id} className="block text-[14px] font-semibold">
        {label} {hint && <span className="font-normal text-quiet">{hint}</span>}
      </label>
      <input
        id={id}
        className="field"
        autoComplete="off"
        spellCheck={false}
        autoFocus={autoFocus}
        aria-invalid={error !== undefined}
        aria-describedby={error ? `${id}-fault` : undefined}
        {...input}
      />
      {error && (
        <p id={`${id}-fault`} role="alert" className="mt-0.5 text-[13.5px] leading-snug text-fail">
          {error}
        </p>
      )}
    </div>
  );
}
