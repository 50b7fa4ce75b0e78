'use client';

import { INTERFACES, STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { regulatorModel } from '@/core/parts/regulators';
import { tabWords } from '@/core/parts/regulators/model';
import { stepInList } from '@/core/quantity/preferred';
import { ChoiceField } from '@/ui/choice-field';
import { QuantityField } from '@/ui/quantity-field';
import { useDesign, useEdit } from '@/ui/session';
import { Ahead } from './ahead';
import { FamilyFields } from './family-fields';
import { FurtherOutputs } from './further-outputs';
import { Kept } from '@/ui/kept';
import { PartInHand } from './part-in-hand';
import { RegulatorArithmetic } from './regulator-arithmetic';
import { RegulatorSchools } from './regulator-schools';

/** The regulator in focus: its family, what sets it, how it is cooled, and its own arithmetic. */
export function RegulatorFields() {
  const design = useDesign();
  const edit = useEdit();
  const { regulator, heat } = design;
  const model = regulatorModel(regulator);
  /** Families with few fields of their own leave room for what the Heat place also asks. */
  const short = regulator.kind !== 'bench' && regulator.kind !== 'error-transistor';

  return (
    <>
      <FamilyFields regulator={regulator} design={design} onChange={(next) => edit({ regulator: next })} />
      {model?.pass.takesSink && (
        <>
          <QuantityField
            path="heat.sinkKPerW"
            value={heat.sinkKPerW}
            placeholder="no sink"
            step={(v, d) => stepInList(v, [...STANDARD_SINKS_K_PER_W].reverse(), d)}
            onCommit={(v) => edit({ heat: { sinkKPerW: v } })}
          />
          {short && (
            <ChoiceField
              label="Metal to sink"
              value={heat.interface}
              options={INTERFACES.map((i) => ({ value: i.id, label: i.name }))}
              onChange={(id) => edit({ heat: { interface: id } })}
            />
          )}
        </>
      )}
      <div className="col-span-3 flex items-center gap-1.5 text-[13.5px] leading-snug text-quiet [&>div]:flex-none">
        {model && (
          <>
            <RegulatorArithmetic model={model} />
            <RegulatorSchools />
            <Ahead />
          </>
        )}
        {regulator.kind !== 'none' && (
          <PartInHand
            regulator={regulator}
            sheet={design.regulatorSheet}
            onRegulator={(next) => edit({ regulator: next })}
            onSheet={(regulatorSheet) => edit({ regulatorSheet })}
          />
        )}
        <FurtherOutputs />
        {model && <Kept role="regulator" />}
        {model && short && regulator.kind === 'fixed' && (
          <span className="ml-1 min-w-0 truncate">
            {model.pass.package}, {tabWords(model.pass)}
          </span>
        )}
      </div>
    </>
  );
}
