/** A text in which no line ends between a number and its unit. */
export function unbroken(text: string): string {
  return text.replace(/(\d) (?=[a-zµΩ%°])/gi, '$1\u00a0');
}
