import { formatQuantity } from '@/core/quantity/format';
import { Explained } from './explained';
import { figureText, inputText, type Figure } from '@/core/study/figure';

const ORIGIN_WORDS: Record<Figure['origin'], string> = {
  simulated: 'simulated',
  formula: 'calculated',
  'data sheet': 'from a data sheet',
  typical: 'typical for the class',
  measured: 'measured',
  'rule of thumb': 'rule of thumb',
  chosen: 'chosen by you',
};

/**
 * How a number came about: expression, values put in, estimate beside it, source, assumptions.
 * @param named false where its name and value already stand above
 */
export function Working({ figure, named = true }: { figure: Figure; named?: boolean }) {
  return (
    <div data-testid="working" className="text-[14px] leading-snug">
      <p className="flex flex-wrap items-baseline gap-x-2">
        {named && (
          <>
            <span className="serif font-semibold">{figure.label}</span>
            <span className="text-[17px] font-semibold text-volt">{figureText(figure)}</span>
          </>
        )}
        <span className="text-[13px] text-quiet">
          {ORIGIN_WORDS[figure.origin]}
          {figure.condition ? `, ${figure.condition}` : ''}
        </span>
      </p>
      <p className="mt-0.5 italic">
        <Explained text={figure.expression} />
      </p>
      {figure.inputs.length > 0 && (
        <ul className="mt-0.5 flex flex-wrap gap-x-4">
          {figure.inputs.map((input) => (
            <li key={input.label}>
              <span className="text-quiet">{input.label}</span> {inputText(input)}
              {input.origin === 'typical' && <span className="text-quiet"> (typical)</span>}
              {input.origin === 'data sheet' && <span className="text-quiet"> (your data sheet)</span>}
            </li>
          ))}
        </ul>
      )}
      {figure.estimate && (
        <p className="mt-0.5" title={figure.estimate.expression}>
          <span className="text-quiet">By rule of thumb ({figure.estimate.label}):</span>{' '}
          {formatQuantity(figure.estimate.value, figure.unit)}
        </p>
      )}
      <p className="mt-0.5 text-[13px] text-quiet">
        <Explained text={[figure.source, ...figure.assumes].join(' ')} />
      </p>
    </div>
  );
}
