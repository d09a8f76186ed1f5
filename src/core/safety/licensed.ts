import type { CircuitModel } from '../circuit/model';
import type { Licence, Person } from '../people/roles';
import { areLineVolts } from './lineVolts';
import type { SheetName } from '../sheets/sheets';

/** Sheets about a refrigerant circuit: only licensed people open one. */
const OF_REFRIGERANT: readonly SheetName[] = ['saturation', 'evacuation', 'planner'];

/** What whoever works on a whole circuit holds: somewhere in it is line voltage, or a refrigerant. */
export function licencesOf({ compiled }: CircuitModel): Licence[] {
  return [
    ...(areLineVolts(compiled.supplyVolts) ? (['lineVolts'] as const) : []),
    ...(compiled.parts.some(({ part }) => 'refrigerant' in part && part.refrigerant === true)
      ? (['refrigerant'] as const)
      : []),
  ];
}

/** The licence that a sheet is about; null where anybody may use it. */
export function licenceOfSheet(sheet: SheetName): Licence | null {
  return OF_REFRIGERANT.includes(sheet) ? 'refrigerant' : null;
}

/** Whether somebody may use a sheet: they hold the licence it is about, where it is about one. */
export function isOpenTo(sheet: SheetName, { licences }: Pick<Person, 'licences'>): boolean {
  const licence = licenceOfSheet(sheet);
  return licence === null || licences.includes(licence);
}
