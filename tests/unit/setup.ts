import fc from 'fast-check';

/** Properties draw the same cases every time; `SEED=random npx jest` draws others. */
const asked = process.env['SEED'];
if (asked !== 'random') fc.configureGlobal({ seed: Number(asked ?? 20261126) });
