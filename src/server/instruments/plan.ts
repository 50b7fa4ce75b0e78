import * as yup from 'yup';
import { firstFault, type Fault } from '@/core/design/fault';
import type { SweepPlan } from '@/core/instrument/sweep';

const number = () => yup.number().strict(true).typeError('${path} has to be a number').required('${path} is missing');

const planSchema = yup
  .object({
    amps: yup
      .array()
      .strict(true)
      .required('${path} is missing')
      .max(100, '100 steps are the most')
      .of(number().min(0)),
    settleS: number(),
    sourceV: number().min(0.3, '${path} are no volts of a source').max(500, '${path} are no volts of a source'),
    meterOn: yup.string<SweepPlan['meterOn']>().strict(true).required().oneOf(['reservoir', 'output', 'none']),
    limits: yup
      .object({
        leastV: number().min(0),
        mostA: number().min(0).max(50),
        mostW: number().min(0).max(5000),
        mostC: yup.number().strict(true).nullable().defined().min(20).max(200),
        mostMinutes: number().min(0).max(1440),
      })
      .required('${path} are missing'),
  })
  .required('A plan is missing.')
  .strict(true);

/** Reads the plan of a sweep as it comes over the border. */
export function readPlan(value: unknown): { ok: true; plan: SweepPlan } | { ok: false; fault: Fault } {
  try {
    return { ok: true, plan: planSchema.validateSync(value) as SweepPlan };
  } catch (error) {
    return { ok: false, fault: firstFault(error) };
  }
}
