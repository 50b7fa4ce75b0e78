'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { useForm, useWatch, type Resolver } from 'react-hook-form';
import { formatNominal } from '@/core/quantity/format';
import type { Summary } from '@/core/picture/summary';
import { FEED_HINTS, FEED_NAMES, feedPatch, FEEDS } from '@/core/size/feeds';
import type { Proposal } from '@/core/size/proposal';
import type { SearchProgress } from '@/core/size/propose';
import { createDesign } from '@/ui/api';
import { asked } from '@/workers/asked';
import { dropSearch } from '@/workers/client';
import { goThrough } from '@/workers/go-through';
import { MainsOptions, presetOf } from './mains-choice';
import { TextField } from './text-field';
import { Awaited, WayIn } from './way-in';
import { ProposalCard } from './proposal-card';
import { keepTexts, textsOf } from './kept-text';
import { loadOf, numberOf, valueOf, type LoadForm } from './load-values';

/** The form's schema comes with the first check, not with the page. */
const checked: Resolver<LoadForm> = async (values, context, options) => {
  const { loadResolver } = await import('./load-schema');
  return loadResolver(values, context, options);
};

type Proposed = Proposal & { summary: Summary };

/** What must it feed: say so, get a set of standard parts that holds, with the reasons. */
export function FromLoad() {
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
      mains: presetOf(undefined).id,
    },
  });
  const ready = useSyncExternalStore(
    () => () => undefined,
    () => true,
    () => false,
  );
  const { errors } = form.formState;
  // What was typed on an earlier visit of this window is still there.
  useEffect(() => {
    form.reset({ ...form.getValues(), ...textsOf('load') });
    return form.subscribe({
      formState: { values: true },
      callback: ({ values }) => keepTexts('load', values as unknown as Record<string, string>),
    });
  }, [form]);
  useEffect(() => {
    if (ready) form.setFocus('outputV');
  }, [ready, form]);
  const feed = useWatch({ control: form.control, name: 'feed' });
  const [proposal, setProposal] = useState<Proposed | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [progress, setProgress] = useState<SearchProgress | null>(null);
  const searches = useRef(0);

  async function search(values: LoadForm) {
    setBusy(true);
    setTrouble(null);
    const { mains } = presetOf(values.mains);
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
        goThrough(
          solver,
          'proposal',
          {
            name,
            demand,
            mains,
            feed: feedPatch(
              values.feed,
              numberOf(values.feedV, 'V'),
              numberOf(values.feedAmount, values.feed === 'battery' ? 'Ah' : 'A'),
            ),
          },
          { tell: (parts) => mine === searches.current && setProgress(parts[parts.length - 1]!) },
        ),
      'search',
      () => mine === searches.current,
    );
    if (mine !== searches.current) return;
    setProgress(null);
    setBusy(false);
    if (!answer.ok) setTrouble(answer.error);
    else if (answer.value) setProposal(answer.value.end);
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
    <WayIn
      form={
        <form noValidate onSubmit={(e) => void form.handleSubmit(search)(e)}>
          {/* Nothing can be typed before the page can keep it. */}
          <fieldset disabled={!ready} className="space-y-3">
            <TextField
              label="Volts"
              hint="at the load"
              fault={errors.outputV?.message}
              {...form.register('outputV')}
              autoFocus
            />
            <TextField
              label="Amperes"
              hint="the most it draws for long; 10 Ω or 360 W are read too"
              fault={errors.outputA?.message}
              {...form.register('outputA')}
            />
            <TextField
              label="May deviate, ±"
              hint="5 % suits a fixed regulator; 20 % and more can do without"
              fault={errors.tolerancePct?.message}
              {...form.register('tolerancePct')}
            />
            <TextField
              label="Ripple it puts up with, peak to peak"
              fault={errors.rippleVpp?.message}
              {...form.register('rippleVpp')}
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
                <TextField label="Its volts" fault={errors.feedV?.message} {...form.register('feedV')} />
                <TextField
                  label={feed === 'battery' ? 'It holds, Ah' : 'Its amperes'}
                  fault={errors.feedAmount?.message}
                  {...form.register('feedAmount')}
                />
              </div>
            )}
            <div className={feed === 'mains' || feed === 'ac-adapter' ? '' : 'hidden'}>
              <label htmlFor="mains" className="block text-[14px] font-semibold">
                Mains
              </label>
              <select id="mains" className="field" {...form.register('mains')}>
                <MainsOptions />
              </select>
            </div>
            <TextField label="Name" hint="optional" fault={errors.name?.message} {...form.register('name')} />
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
      }
      proposal={
        proposal ? (
          <ProposalCard
            design={proposal.design}
            summary={proposal.summary}
            verdicts={proposal.verdicts}
            reasons={proposal.reasons}
            leftOut={proposal.leftOut}
            trouble={proposal.shortfall}
            lead={`${proposal.simulated} complete sets were simulated.`}
            costEur={proposal.costEur}
            focus
            busy={busy}
            onTake={() => void take()}
          />
        ) : (
          <Awaited title="A transformer, rectifier, reservoir, regulator and heatsink come back,">
            each from standard values, each found by simulating low line with a tired reservoir and high line with no
            load and with full load; rules of thumb only choose where to start. A line says why.
          </Awaited>
        )
      }
    />
  );
}
