import net from 'node:net';
import { LINE_MAX } from '@/core/instrument/commands';
import type { Address } from './address';

/** One line that went one way, for the log. */
export interface Said {
  at: string;
  to: string;
  way: 'sent' | 'answered' | 'fault';
  text: string;
}

const CONNECT_MS = 2000;
const ANSWER_MS = 3000;
/** Longest answer that is taken, letters: a trace of 20,000 points. */
const ANSWER_MAX = 400_000;
/** At least so long between two lines to one instrument, ms: old ones lose the second of two. */
const APART_MS = 8;

/** What went wrong on the way to an instrument, as a sentence. */
export class LineFault extends Error {}

/** A conversation with one instrument, a line at a time. */
export class Line {
  private socket: net.Socket | null = null;
  private heard = '';
  private waiting: { tell(text: string): void; fail(fault: LineFault): void } | null = null;
  private queue: Promise<unknown> = Promise.resolve();
  private lastMs = 0;

  constructor(
    readonly name: string,
    private readonly address: Address,
    private readonly log: (said: Said) => void = () => {},
  ) {}

  /** Sends a line that is not answered. */
  tell(line: string): Promise<void> {
    return this.inTurn(async () => {
      await this.send(line);
    });
  }

  /** Sends a question and comes back with its answer, without its line's end. */
  ask(line: string): Promise<string> {
    return this.inTurn(async () => {
      await this.send(line);
      return this.answer();
    });
  }

  close(): void {
    this.socket?.destroy();
    this.socket = null;
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.queue.then(work, work);
    this.queue = turn.catch(() => {});
    return turn;
  }

  private async send(line: string): Promise<void> {
    if (line.length > LINE_MAX || /[^\x20-\x7e]/.test(line))
      throw this.fault(`The line ‘${line.slice(0, 40)}’ cannot be sent.`);
    const socket = await this.connected();
    const restMs = this.lastMs + APART_MS - Date.now();
    if (restMs > 0) await new Promise((resolve) => setTimeout(resolve, restMs));
    this.lastMs = Date.now();
    // What came late belongs to nothing that is asked now.
    this.heard = '';
    this.note('sent', line);
    socket.write(`${line}\n`);
  }

  private answer(): Promise<string> {
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => {
        // An answer that comes after this would be taken for that to the next question.
        this.close();
        this.waiting?.fail(this.fault(`The ${this.name} did not answer within ${ANSWER_MS / 1000} s.`));
      }, ANSWER_MS);
      const done = () => {
        clearTimeout(timer);
        this.waiting = null;
      };
      this.waiting = {
        tell: (text) => {
          done();
          this.note('answered', text);
          resolve(text);
        },
        fail: (fault) => {
          done();
          reject(fault);
        },
      };
      this.look();
    });
  }

  private look(): void {
    const end = this.heard.indexOf('\n');
    if (end < 0) {
      if (this.heard.length > ANSWER_MAX) {
        this.close();
        this.waiting?.fail(this.fault(`The ${this.name} sent more than an answer may hold.`));
      }
      return;
    }
    const text = this.heard.slice(0, end).replace(/\r$/, '');
    this.heard = this.heard.slice(end + 1);
    this.waiting?.tell(text);
  }

  private connected(): Promise<net.Socket> {
    if (this.socket && !this.socket.destroyed) return Promise.resolve(this.socket);
    const { host, port } = this.address;
    return new Promise((resolve, reject) => {
      const socket = net.connect({ host, port });
      const lost = (words: string) => {
        if (this.socket === socket) this.socket = null;
        socket.destroy();
        const fault = this.fault(words);
        reject(fault);
        this.waiting?.fail(fault);
      };
      socket.setNoDelay(true);
      const timer = setTimeout(() => lost(`The ${this.name} at ${host}:${port} cannot be reached.`), CONNECT_MS);
      socket.once('connect', () => {
        clearTimeout(timer);
        this.socket = socket;
        resolve(socket);
      });
      socket.on('error', () => {
        clearTimeout(timer);
        lost(
          this.socket === socket
            ? `The connection to the ${this.name} broke.`
            : `Nothing answers at ${host}:${port}: is the ${this.name} on, and is this its address?`,
        );
      });
      socket.on('close', () => {
        clearTimeout(timer);
        if (this.socket === socket) lost(`The ${this.name} hung up.`);
      });
      socket.setEncoding('latin1');
      socket.on('data', (text: string) => {
        this.heard += text;
        if (this.waiting) this.look();
      });
    });
  }

  private fault(words: string): LineFault {
    this.note('fault', words);
    return new LineFault(words);
  }

  private note(way: Said['way'], text: string): void {
    this.log({ at: new Date().toISOString(), to: this.name, way, text: text.slice(0, LOG_TEXT) });
  }
}

/** So much of a line is kept in the log, letters: a trace would fill it by itself. */
const LOG_TEXT = 240;
