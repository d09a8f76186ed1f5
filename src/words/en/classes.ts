/** Classes of equipment: how their functions are drawn, in words. */

export const classAddress = (equipment: string): string => `/classes/${encodeURIComponent(equipment)}`;

export const machinesCount = (count: number): string => (count === 1 ? '1 machine' : `${count} machines`);

/** "17 parts; on 9 of 10 machines, drawn alike on all of them". */
export function drawnWords({
  parts,
  machines,
  of,
  ways,
}: {
  parts: number;
  /** Machines that have the function, of so many of the class. */
  machines: number;
  of: number;
  /** In how many ways it is drawn. */
  ways: number;
}): string {
  const where = machines === 1 && of === 1 ? 'on its one machine' : `on ${machines} of ${machinesCount(of)}`;
  const how = machines === 1 ? '' : ways === 1 ? ', drawn alike' : `, drawn in ${ways} ways`;
  return `${parts} parts; ${where}${how}`;
}

/** "on 8: G-1, G-2 and 6 more". */
export function wayWords({ machines, named }: { machines: number; named: readonly string[] }): string {
  const more = machines - named.length;
  return `on ${machines}: ${named.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}
