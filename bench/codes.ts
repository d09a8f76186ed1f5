/**
 * Times the reading of a bus log, single messages and interleaved multi-packet ones, against a loop that only splits the
 * same lines. `npm run bench:codes [-- LINES]`. Prints seconds and a ratio; asserts nothing.
 */
import { CodeLog } from '../src/core/codes/codeLog';
import { encodeDm, encodeJ1939 } from '../src/core/codes/j1939';
import { packBroadcast } from '../src/core/codes/transport';

const lineCount = Number(process.argv[2] ?? 1_000_000);
const PIECE = 20_000;
const hex = (bytes: readonly number[]) =>
  bytes.map((byte) => byte.toString(16).toUpperCase().padStart(2, '0')).join('');

/** Frames of three senders' multi-packet messages in turn, between ordinary traffic. */
const senders = [3, 33, 39].map((address) => {
  const codes = Array.from({ length: 5 }, (_one, k) => encodeJ1939(1200 + 10 * address + k, k, 1));
  return packBroadcast(65226, address, encodeDm([4, 255], codes));
});
const special = senders[0]!.flatMap((_one, packet) => senders.map((frames) => frames[packet]!));

function* pieces(): Generator<string> {
  let time = 1000;
  for (let made = 0; made < lineCount; made += PIECE) {
    const lines: string[] = [];
    for (let k = 0; k < PIECE; k++) {
      time += 0.0008;
      const frame = special[(made + k) % 200];
      lines.push(
        frame
          ? `(${time.toFixed(6)}) can0 ${frame[0].toString(16).toUpperCase().padStart(8, '0')}#${hex(frame[1])}`
          : `(${time.toFixed(6)}) can0 0CF00400#F07D7D0000FFF07D`,
      );
    }
    yield lines.join('\n');
  }
}

let [plain, read] = [0, 0];
let fields = 0;
const log = new CodeLog();
for (const piece of pieces()) {
  let started = performance.now();
  for (const line of piece.split('\n')) fields += line.split(' ').length;
  plain += performance.now() - started;
  started = performance.now();
  for (const line of piece.split('\n')) log.line(line);
  read += performance.now() - started;
}
const { codes, frames, bad, broken } = log.summary();
console.log(
  `${frames} frames, ${codes.length} codes, ${bad} damaged lines, ${broken} broken messages; ${fields} fields split`,
);
console.log(
  `read ${(read / 1000).toFixed(2)} s, plain split ${(plain / 1000).toFixed(2)} s, ratio ${(read / plain).toFixed(1)}; ` +
    `${(process.resourceUsage().maxRSS / 1024).toFixed(0)} MB at most`,
);
