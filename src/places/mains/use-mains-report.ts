'use client';

import type { Design } from '@/core/design/design';
import { useSolved } from '@/ui/use-solved';
import type { RemoteSolver } from '@/workers/client';

const askSide = (solver: RemoteSolver, design: Design) => solver.mainsSide(design);

/** Fuses, discharge and checklist of the design that is open. */
export const useMainsReport = () => useSolved(askSide);
