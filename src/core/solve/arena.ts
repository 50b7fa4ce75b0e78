/** Memory for columns, taken piece by piece and used over and over. */
export class Arena {
  private block = new Float64Array(8192);
  private used = 0;

  clear(): void {
    this.used = 0;
  }

  /** A piece of the given length with whatever stood there before. */
  take(length: number): Float64Array {
    if (this.used + length > this.block.length) {
      this.block = new Float64Array(2 * this.block.length + length);
      this.used = 0;
    }
    return this.block.subarray(this.used, (this.used += length));
  }
}
