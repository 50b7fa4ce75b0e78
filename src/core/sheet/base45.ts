const DIGITS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ $%*+-./:';

/** Bytes in the letters a QR code packs tightest (RFC 9285): two bytes to three letters. */
export function toBase45(bytes: Uint8Array): string {
  let text = '';
  for (let n = 0; n < bytes.length; n += 2) {
    const pair = n + 1 < bytes.length;
    let value = pair ? 256 * bytes[n]! + bytes[n + 1]! : bytes[n]!;
    for (let k = 0; k < (pair ? 3 : 2); k++) {
      text += DIGITS[value % 45];
      value = Math.floor(value / 45);
    }
  }
  return text;
}

/** @returns null where it is none */
export function fromBase45(text: string): Uint8Array | null {
  const bytes: number[] = [];
  for (let n = 0; n < text.length; n += 3) {
    const group = Array.from(text.slice(n, n + 3), (letter) => DIGITS.indexOf(letter));
    if (group.length === 1 || group.includes(-1)) return null;
    const value = group.reduce((sum, digit, k) => sum + digit * 45 ** k, 0);
    if (value > (group.length === 3 ? 65535 : 255)) return null;
    if (group.length === 3) bytes.push(value >> 8);
    bytes.push(value & 255);
  }
  return Uint8Array.from(bytes);
}
