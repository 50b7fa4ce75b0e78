import { applyPatch, type Design, type Edit, type OutputId, type Patch } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import { outputsOf, type Output } from '@/core/design/outputs';
import { sectionsHold } from '@/core/design/schema';
import { asMain } from './looks';
import { ruleOf, type RuleId } from './rules';

/** Every cure a rule offers for a design, on the output it was found at: none that a fixed part or the document refuses. */
export function curesOf(design: Design, id: RuleId, output: OutputId | null): Edit[] {
  const of = outputsOf(design).find((o) => o.id === (output ?? 'main')) ?? outputsOf(design)[0]!;
  return ruleOf(id)
    .cures(asMain(design, of))
    .flatMap((edit) => ontoOutput(design, of, edit) ?? [])
    .filter((edit) => !touchesFixed(design, edit.patch) && withinBorders(design, edit.patch));
}

/** An edit made for an output as if it were the main one, as an edit of the design; null where it means nothing there. */
function ontoOutput(design: Design, output: Output, edit: Edit): Edit | null {
  if (output.place < 0) return edit;
  const { demand, regulator, regulatorSheet, heat, preRegulator, indicator, ...rest } = edit.patch;
  // What stands ahead of the main regulator, its fan and the indicator are not this output's.
  if (preRegulator !== undefined || indicator !== undefined || heat?.fan !== undefined) return null;
  const { sinkKPerW, ...heatRest } = heat ?? {};
  const own = demand ?? regulator ?? regulatorSheet ?? (sinkKPerW === undefined ? undefined : null);
  const shared = design.heat.oneSink && sinkKPerW !== undefined;
  const outputs =
    own === undefined
      ? undefined
      : design.outputs.map((o, n) =>
          n === output.place
            ? {
                ...o,
                ...(demand ? { demand: { ...o.demand, ...demand } } : {}),
                ...(regulator ? { regulator: regulator as Design['regulator'] } : {}),
                ...(sinkKPerW === undefined || shared ? {} : { sinkKPerW }),
              }
            : o,
        );
  const patch: Patch = {
    ...rest,
    ...(outputs ? { outputs } : {}),
    ...(Object.keys(heatRest).length > 0 || shared ? { heat: { ...heatRest, ...(shared ? { sinkKPerW } : {}) } } : {}),
  };
  const label = outputs && !shared ? `${edit.label}, ${output.name}` : edit.label;
  return { label, patch };
}

/** Which parts a patch would replace. */
function rolesOf(design: Design, patch: Patch): PartRole[] {
  const roles: PartRole[] = [];
  if (patch.transformer || patch.source) roles.push('transformer');
  if (patch.rectifier) roles.push('rectifier');
  if (patch.reservoir) roles.push('reservoir');
  if (patch.filter?.before || patch.filter?.after) roles.push('choke');
  if (patch.regulator && JSON.stringify(patch.regulator) !== JSON.stringify(design.regulator)) {
    roles.push('regulator');
    const before = 'transistor' in design.regulator ? design.regulator.transistor : null;
    const after = 'transistor' in patch.regulator ? patch.regulator.transistor : null;
    if (before !== after) roles.push('transistor');
  }
  if (patch.heat?.sinkKPerW !== undefined || patch.heat?.rectifierSinkKPerW !== undefined) roles.push('sink');
  return roles;
}

/** Whether a patch would replace a part that is as it is. */
export function touchesFixed(design: Design, patch: Patch): boolean {
  return design.fixed.length > 0 && rolesOf(design, patch).some((role) => design.fixed.includes(role));
}

/** Whether a patched design is one the document's own border lets in. */
export function withinBorders(design: Design, patch: Patch): boolean {
  return sectionsHold(applyPatch(design, patch), Object.keys(patch) as (keyof Patch)[]);
}
