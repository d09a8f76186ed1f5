import type { MeterMode, MeterSample } from '@/core/instrument/meterMode';
import { functionName, readFigure, readFunction } from '@/core/instrument/scpi';
import type { LineChannel } from '../lineChannel';
import type { Instrument } from './instrument';

/** A reading with slow integration and autorange is there within this, milliseconds. */
const ANSWER_MS = 4000;
/** The longest answer that is one. */
const LONGEST = 4000;

export interface ScpiInstrument extends Instrument {
  turnTo(mode: MeterMode): Promise<void>;
  /** A command without an answer; rejects with what the instrument has against it. */
  tell(command: string): Promise<void>;
}

/** A multimeter that speaks SCPI over a channel of lines. Questions go one after another: an instrument answers in the order of asking. */
export function scpiInstrument(channel: LineChannel, answerMs = ANSWER_MS): ScpiInstrument {
  let waiting: { take: (line: string) => void; fail: (error: Error) => void } | null = null;
  let lost: Error | null = null;
  let last: Promise<unknown> = Promise.resolve();
  channel.listen({
    line: (line) => waiting?.take(line.slice(0, LONGEST)),
    lost: (reason) => {
      lost = new Error(reason);
      waiting?.fail(lost);
    },
  });

  /** An answer that came too late would be taken for the next one's: after it the channel is of no use. */
  const ask = (question: string): Promise<string> => {
    const answer = last.then(
      () =>
        new Promise<string>((resolve, reject) => {
          if (lost) return reject(lost);
          const timer = setTimeout(() => {
            waiting = null;
            lost = new Error('the instrument does not answer');
            reject(lost);
            channel.close();
          }, answerMs);
          waiting = {
            take: (line) => {
              clearTimeout(timer);
              waiting = null;
              resolve(line);
            },
            fail: (error) => {
              clearTimeout(timer);
              waiting = null;
              reject(error);
            },
          };
          channel.send(question);
        }),
    );
    last = answer.catch(() => undefined);
    return answer;
  };
  const tell = async (command: string): Promise<void> => {
    channel.send(command);
    const error = await ask('SYSTem:ERRor?');
    if (!/^\s*\+?0\b/.test(error)) throw new Error(`the instrument refused: ${error.trim()}`);
  };
  const mode = async (): Promise<MeterMode | null> => readFunction(await ask('SENSe:FUNCtion?'));

  return {
    identify: async () => (await ask('*IDN?')).trim(),
    mode,
    tell,
    turnTo: (wanted) => tell(`CONFigure:${functionName(wanted)}`),
    async read(): Promise<MeterSample | null> {
      const value = readFigure(await ask('READ?'));
      if (value === null) return null;
      // A dial that a hand turned between two questions would put a figure under another unit.
      const stands = await mode();
      return stands && { mode: stands, value };
    },
    close: () => channel.close(),
  };
}
