const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** A text as it stands within SVG or HTML, in an attribute too. */
export const escaped = (text: string): string => text.replace(/[&<>"]/g, (sign) => SIGNS[sign]!);
