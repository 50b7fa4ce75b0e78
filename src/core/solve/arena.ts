/** Room for a cycle's records in most circuits. */
const USUAL = 320;

/** Memory for columns, taken piece by piece and used over and over. */
export class Arena {
  private readonly pieces: Float64Array[] = [];
  private next = 0;

  clear(): void {
    this.next = 0;
  }

  /** A piece of at least the given length, with whatever stood there before. */
  take(length: number): Float64Array {
    const n = this.next++;
    const known = this.pieces[n];
    if (known && known.length >= length) return known;
    return (this.pieces[n] = new Float64Array(Math.max(USUAL, Math.ceil(1.5 * length))));
  }
}
