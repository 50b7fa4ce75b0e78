/** Words the document is written in, apart from its schema so that a page may offer them without it. */

export const CONSUMER_KINDS = ['current', 'resistance', 'power', 'motor', 'lamp'] as const;
export type ConsumerKind = (typeof CONSUMER_KINDS)[number];

export const PART_ROLES = [
  'transformer',
  'rectifier',
  'choke',
  'reservoir',
  'regulator',
  'transistor',
  'sink',
] as const;
export type PartRole = (typeof PART_ROLES)[number];

/** How far a supply is, from first thought to last day. */
export const STAGES = ['sketch', 'chosen', 'ordered', 'built', 'measured', 'retired'] as const;
export type StageOfLife = (typeof STAGES)[number];

/** What was set, or shown by a first meter, and then read with the person's own. */
export const SET_KINDS = ['volts', 'amps', 'meter'] as const;

/** What fed a supply while it was read. */
export const FED_FROM = ['mains', 'variable', 'lamp', 'bench supply'] as const;
