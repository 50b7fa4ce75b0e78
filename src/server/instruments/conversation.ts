import { errorIn, numberIn, numbersIn, switchIn, type Answer } from '@/core/instrument/answers';
import { lineFor, type AskOf, type InstrumentKind, type OwnCommands } from '@/core/instrument/commands';
import type { Address } from './address';
import { Line, LineFault, type Said } from './line';

/** An instrument with the words its make understands. */
export class Conversation<K extends InstrumentKind> {
  private readonly line: Line;

  constructor(
    private readonly kind: K,
    address: Address,
    private readonly own: OwnCommands,
    log?: (said: Said) => void,
  ) {
    this.line = new Line(kind, address, log);
  }

  private of = (ask: AskOf<K>, value?: number) => lineFor(this.kind, ask, this.own, value);

  tell(ask: AskOf<K>, value?: number): Promise<void> {
    return this.line.tell(this.of(ask, value));
  }

  number(ask: AskOf<K>): Promise<number> {
    return this.read(ask, numberIn);
  }

  numbers(ask: AskOf<K>): Promise<number[]> {
    return this.read(ask, numbersIn);
  }

  isOn(ask: AskOf<K>): Promise<boolean> {
    return this.read(ask, switchIn);
  }

  /** Asks what it refused. @throws LineFault where something was; nothing where its make has no such question */
  async accepted(this: Conversation<'load'>): Promise<void> {
    const line = this.of('error');
    const said = line === '' ? null : errorIn(await this.line.ask(line));
    if (said !== null) throw new LineFault(`The ${this.kind} refused what it was told: ${said.slice(0, 80)}`);
  }

  /** Whether it says of itself that it is simulated. */
  async isSimulated(): Promise<boolean> {
    return isSimulated(await this.raw('*IDN?'));
  }

  /** What every instrument understands, whatever its make. */
  raw(line: string): Promise<string> {
    return this.line.ask(line);
  }

  close(): void {
    this.line.close();
  }

  private async read<T>(ask: AskOf<K>, reads: (text: string) => Answer<T>): Promise<T> {
    const answer = reads(await this.line.ask(this.of(ask)));
    if (!answer.ok) throw new LineFault(`${this.kind}: ${answer.fault}`);
    return answer.value;
  }
}

/** Words of a stand-in: whoever says so of itself is simulated. */
export const isSimulated = (identity: string) => /\bSIMULATED\b/i.test(identity);
