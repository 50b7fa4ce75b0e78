/** Memory for columns, taken piece by piece and used over and over. */
export class Arena {
  private block = new Float64Array(8192);
  private used = 0;
  /** The pieces handed out last time, in their order: the next circuit mostly asks for the same. */
  private pieces: Float64Array[] = [];
  private next = 0;

  clear(): void {
    this.used = 0;
    this.next = 0;
  }

  /** A piece of the given length with whatever stood there before. */
  take(length: number): Float64Array {
    if (this.used + length > this.block.length) {
      this.block = new Float64Array(2 * this.block.length + length);
      this.used = 0;
      this.pieces = [];
      this.next = 0;
    }
    const from = this.used;
    this.used += length;
    const known = this.pieces[this.next];
    const piece =
      known !== undefined && known.length === length && known.byteOffset === 8 * from
        ? known
        : (this.pieces[this.next] = this.block.subarray(from, this.used));
    this.next++;
    return piece;
  }
}
