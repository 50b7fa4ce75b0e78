/** How deep the brackets of a JSON text are nested, strings aside: what follows it by recursion has to be bounded first. */
export function depthOfJson(text: string): number {
  let depth = 0;
  let most = 0;
  let inString = false;
  for (let n = 0; n < text.length; n++) {
    const c = text.charCodeAt(n);
    if (inString) {
      if (c === 92) n++;
      else if (c === 34) inString = false;
    } else if (c === 34) inString = true;
    else if (c === 123 || c === 91) most = Math.max(most, ++depth);
    else if (c === 125 || c === 93) depth--;
  }
  return most;
}
