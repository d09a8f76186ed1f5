import { InputError } from '../circuit/inputError';
import type { OwnGauge } from '../circuit/partSchema';

const LINE = /^(.+?)\s*:\s*(\d{1,3})\s*% at rest\s*,\s*(\d{1,3})\s*% at work$/i;

/** A gauge of the machine's own in a line: "Boost gauge: 50 % at rest, 100 % at work". */
export function writeGauge(gauge?: OwnGauge): string {
  if (!gauge) return '';
  const percent = (share: number) => `${Math.round(100 * share)} %`;
  return `${gauge.name}: ${percent(gauge.atRest)} at rest, ${percent(gauge.works)} at work`;
}

/** Reads such a line; nothing for an empty one. Throws {@link InputError} naming what it is not. */
export function readGauge(text: string): OwnGauge | undefined {
  if (text.trim() === '') return undefined;
  const [, name, rest, works] = LINE.exec(text.trim()) ?? [];
  const [atRest, atWork] = [rest, works].map((one) => Number(one) / 100) as [number, number];
  if (!name || !(atRest <= 1) || !(atWork <= 1))
    throw new InputError(
      'ownGauge',
      `"${text.trim()}" is no gauge; write its name and how far it stands up its scale, such as Boost gauge: 50 % at rest, 100 % at work`,
    );
  if (atRest === atWork)
    throw new InputError('ownGauge', 'shows the same at rest and at work, which tells nothing');
  return { name, atRest, works: atWork };
}
