import 'server-only';
import { revalidatePath } from 'next/cache';
import type { Person } from '@/core/people/roles';
import { mayStep, type MoveWhy, type RequisitionState } from '@/core/shed/requisition';
import { rankSpares, standIns, wantedSpare, type Fit, type SpareMatch } from '@/core/shed/spares';
import {
  askForSpare,
  countSpares,
  findSpare,
  listRequisitions,
  listSpares,
  movesOf,
  moveSpare,
  putSpare,
  SpareNumberTaken,
  stepRequisition,
  type SpareRow,
} from '@/db/spares';
import { writeTable } from '@/formats/table';
import { differenceWords, fittingWords, ratingsWords, STATE_WORDS } from '@/words/en/spares';
import { openJob } from '../desk/server';
import { drawnOf } from '../desk/jobModel';
import { openPolicy } from '../policy/server';
import { log } from '../serverLog';
import { siteToday } from '../siteDays';
import type { SpareForm } from './spareFacts';

export const SPARES_A_PAGE = 30;
const MOST_OPEN = 30;
const MOST_DONE = 10;
const MOST_MOVES = 60;
/** Spares of a kind that are looked through for a part. */
const MOST_LOOKED = 2000;
const MOST_OFFERED = 8;

interface Answer {
  trouble: string | null;
  field?: string;
}

/** A page of the shelf, and what is on its way. */
export async function openShelf(filter: { text?: string; low?: boolean }, after: string | undefined) {
  const [spares, counts, open, done] = await Promise.all([
    listSpares(SPARES_A_PAGE + 1, filter, after),
    countSpares(),
    listRequisitions(MOST_OPEN, true),
    listRequisitions(MOST_DONE, false),
  ]);
  const page = spares.slice(0, SPARES_A_PAGE);
  return {
    spares: page,
    counts,
    requisitions: { open, done },
    more: spares.length > page.length ? (page.at(-1)?.number ?? null) : null,
  };
}

/** One spare with its moves, and what could stand in for it; null where there is none. */
export async function openSpare(number: string) {
  const spare = await findSpare(number);
  if (!spare) return null;
  const [moves, shelf] = await Promise.all([
    movesOf(spare.id, MOST_MOVES),
    listSpares(MOST_LOOKED, { kind: spare.kind }),
  ]);
  const likes = standIns(spare, shelf).slice(0, MOST_OFFERED);
  return {
    spare,
    moves,
    standIns: likes.map((one) => {
      const said = offeredOf(one);
      const plug = fittingWords(spare.fitting, one.fitting);
      return plug === null ? said : { ...said, fit: 'askLabel' as const, differs: [...said.differs, plug] };
    }),
  };
}

function offeredOf(one: SpareRow & SpareMatch): Offered {
  const { number, name, place, stock, fit, ratings, fitting, differs } = one;
  const says = ratingsWords(ratings, fitting);
  return { number, name, place, stock, fit, says, differs: differs.map(differenceWords) };
}

/** A spare of the shelf as it is offered for a part. */
export interface Offered {
  number: string;
  name: string;
  place: string;
  stock: number;
  fit: Fit;
  /** What its label says. */
  says: string;
  /** What is not as wanted, or not known, a line each. */
  differs: string[];
}

/** Spares that do for a part of a job, by what its own circuit asks of it; null where there is no such job or part. */
export async function sparesFor(jobNumber: string, part: string): Promise<Offered[] | null> {
  const job = await openJob(jobNumber);
  const wanted = job && wantedSpare(drawnOf(job.circuit).model, part);
  if (!wanted) return null;
  const shelf = await listSpares(MOST_LOOKED, { kind: wanted.kind });
  return rankSpares(wanted, shelf).slice(0, MOST_OFFERED).map(offeredOf);
}

export async function keepSpare({ id, ...facts }: SpareForm): Promise<Answer> {
  try {
    await putSpare(id, facts);
  } catch (error) {
    if (error instanceof SpareNumberTaken) return { trouble: error.message, field: 'number' };
    throw error;
  }
  log.info({ spare: facts.number }, 'spare kept');
  revalidatePath('/parts');
  return { trouble: null };
}

/** Pieces counted, sent back or put on the shelf by hand. */
export async function movePieces(number: string, by: number, why: MoveWhy, person: string): Promise<Answer> {
  const spare = await findSpare(number);
  if (!spare) return { trouble: `There is no spare ${number}.` };
  if (by === 0) return { trouble: 'No piece was moved; type how many came or went.' };
  if (spare.stock + by < 0)
    return {
      trouble: `${Math.abs(by)} cannot go: ${spare.stock} ${spare.stock === 1 ? 'is' : 'are'} on the shelf. Count it, and type what is there less what the card says.`,
    };
  await moveSpare({ spareId: spare.id, pieces: by, why, person, at: new Date() });
  revalidatePath('/parts');
  return { trouble: null };
}

export async function askPieces(number: string, count: number, person: string): Promise<Answer> {
  const spare = await findSpare(number);
  if (!spare) return { trouble: `There is no spare ${number}.` };
  if (count < 1) return { trouble: 'Ask for one piece at least.' };
  const made = await askForSpare({ spareId: spare.id, pieces: count, person, at: new Date() });
  log.info({ requisition: made, spare: number }, 'asked for');
  revalidatePath('/parts');
  return { trouble: null };
}

export async function stepOn(
  number: number,
  state: RequisitionState,
  { name: person, role }: Pick<Person, 'name' | 'role'>,
  note: string,
): Promise<Answer> {
  if (!mayStep(role, state))
    return { trouble: `A lead says whether it is ${STATE_WORDS[state]}; ${person} is none.` };
  const { policy } = await openPolicy();
  const step = { state, person, at: new Date(), note };
  const done = await stepRequisition(number, step, siteToday(policy.timeZone));
  if (!done)
    return {
      trouble: `Requisition ${number} does not stand where it could be ${STATE_WORDS[state]}; look at it again.`,
    };
  log.info({ requisition: number, state }, 'requisition');
  revalidatePath('/parts');
  return { trouble: null };
}

/** The whole shelf as CSV. */
export async function shelfTable(): Promise<string> {
  const rows: SpareRow[] = [];
  for (let after: string | undefined; ;) {
    const page = await listSpares(MOST_LOOKED, {}, after);
    rows.push(...page);
    if (page.length < MOST_LOOKED) break;
    after = page.at(-1)!.number;
  }
  return writeTable(
    [
      'number',
      'name',
      'kind',
      'ratings',
      'plug and thread',
      'place',
      'stock',
      'minimum',
      'on the way',
      'price',
      'lead days',
      'supplier',
    ],
    rows.map((one) => ({
      number: one.number,
      name: one.name,
      kind: one.kind,
      ratings: ratingsWords(one.ratings, ''),
      'plug and thread': one.fitting,
      place: one.place,
      stock: one.stock,
      minimum: one.minimum,
      'on the way': one.on_the_way,
      price: one.price ?? '',
      'lead days': one.lead_days ?? '',
      supplier: one.supplier,
    })),
  );
}
