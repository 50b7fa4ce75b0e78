import { readLabel } from './label-code';

/** What a text holds: a document that may be a design, a name a label refers to, or why there is neither. */
export type Inside =
  { kind: 'document'; value: unknown } | { kind: 'name'; id: string } | { kind: 'fault'; sentence: string };

/** Marks the design within a page or a text of this program. */
export const INSIDE_ID = 'ember-rail-design';
const FENCE = /^```json ember-rail-design\n([\s\S]*?)\n```\s*$/m;
const SCRIPT = /<script type="application\/json" id="ember-rail-design">([\s\S]*?)<\/script>/;

/** A design as it stands in Markdown, where the program finds it again. */
export const asFence = (design: unknown): string => `\`\`\`json ${INSIDE_ID}\n${JSON.stringify(design)}\n\`\`\``;

/** A design as it stands in a page: read by no browser, and unable to end the element it is in. */
export const asScript = (design: unknown): string =>
  `<script type="application/json" id="${INSIDE_ID}">${JSON.stringify(design).replace(/</g, '\\u003c')}</script>`;

/** Finds the design in a file of this program: JSON, the Markdown of a sheet, a shared page, or what a label's code says. */
export function designInside(text: string): Inside {
  const label = readLabel(text);
  if (label?.kind === 'spoiled')
    return {
      kind: 'fault',
      sentence: 'this is the code of a label, and a letter of it is wrong or missing: read it again.',
    };
  if (label) return label;
  const found = FENCE.exec(text)?.[1] ?? SCRIPT.exec(text)?.[1];
  try {
    return { kind: 'document', value: JSON.parse(found ?? text) as unknown };
  } catch {
    return {
      kind: 'fault',
      sentence: found
        ? 'the design in this file is damaged and cannot be read.'
        : /^\s*[{[]/.test(text)
          ? 'this is not a JSON file: it could not be read at all.'
          : 'there is no design of this program in this file.',
    };
  }
}
