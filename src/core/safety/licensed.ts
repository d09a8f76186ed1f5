import { samePerson } from '../job/rules/ledgerStanding';
import type { SheetName } from '../sheets/sheets';

/** Sheets about a refrigerant circuit: only licensed people open one, and only where the site says who they are. */
const OF_REFRIGERANT: readonly SheetName[] = ['saturation', 'evacuation', 'planner'];

/** Who is licensed for what a sheet is about, as the site's policy names them; `free` where anybody may use it. */
export function licensedFor(
  sheet: SheetName,
  refrigerantPeople: string,
): { is: 'free' } | { is: 'licensed'; people: string } | { is: 'nobodyNamed' } {
  if (!OF_REFRIGERANT.includes(sheet)) return { is: 'free' };
  const people = refrigerantPeople.trim();
  return people === '' ? { is: 'nobodyNamed' } : { is: 'licensed', people };
}

/** Whether somebody is among those whom the site names; nobody is where it names nobody. */
export function isLicensed(person: string, people: string): boolean {
  const named = people
    .split(/[,;\n]|\band\b/)
    .map((one) => one.trim())
    .filter(Boolean);
  return named.some((one) => samePerson(one, person));
}
