import type { Calibration } from '@/core/shed/calibration';

/** A factor on a rule of thumb: "3.1 ×", "as usual". */
export function factorWords(factor: number): string {
  if (Math.abs(Math.log(factor)) < 0.05) return 'as usual';
  return `${factor >= 10 ? Math.round(factor) : Number(factor.toPrecision(2))} ×`;
}

/** "8 of 11 were X31.2 bulkhead pin 2, bad joint; 2 were …". */
export function alikeWords({
  jobs,
  parts,
}: {
  jobs: number;
  parts: readonly { words: string; found: number }[];
}): string {
  return parts
    .map(
      ({ words, found }, k) =>
        `${k === 0 ? `${found} of ${jobs}` : found} ${found === 1 ? 'was' : 'were'} ${words}`,
    )
    .join('; ');
}

/** How well doubt came true, in two sentences. */
export function calibrationWords({ jobs, off, named, wrong }: Calibration): string {
  if (jobs === 0) return 'No job was proved yet.';
  const points = Math.round(100 * off);
  const names =
    named === 0
      ? 'No part was named.'
      : `Of ${named} parts named, ${wrong === 0 ? 'none was' : wrong === 1 ? 'one was' : `${wrong} were`} wrong.`;
  return `Over ${jobs} proved ${jobs === 1 ? 'job' : 'jobs'} the doubt was off by ${points} ${points === 1 ? 'point' : 'points'} of a hundred on average. ${names}`;
}
