import type { CircuitModel } from '@/core/circuit/model';
import type { EntryOf } from '@/core/job/entries';
import type { JobState } from '@/core/job/reduceJob';
import { ledgerStanding, safetyDefects } from '@/core/job/rules/ledgerStanding';
import { pointTitle } from '@/words/en/energies';
import { defectHarm } from '@/words/en/ledger';
import { quantity } from '@/words/en/readings';
import type { Report, ReportLine } from './report';

/** How the work was made safe and by whom, what was put in the machine and how it came out. @param day a moment on the site's clock */
export function safetyOf(
  model: CircuitModel,
  state: JobState,
  day: (iso: string) => string,
): Pick<Report, 'defects' | 'madeSafe' | 'safety' | 'putIn'> {
  return {
    defects: safetyDefects(model, state).map((defect) => ({
      text: `Safety defect: ${defect.item}${defect.found ? ', found in the machine' : ''}`,
      beside: defectHarm(defect),
      tone: 'bad',
    })),
    madeSafe: [
      ...state.safetyTrail.flatMap((entry) => safetyLine(entry, day(entry.at))),
      ...(state.wasMadeSafe || !state.safetyTrail.some(({ type }) => type === 'isolation')
        ? []
        : [NOT_SIGNED]),
    ],
    safety: [...state.locks.values()].flat().map(({ body, person }) => ({
      text: `${pointTitle(body.point)}${body.lock ? `, lock ${body.lock}` : ''}`,
      beside: person,
      tone: 'left' as const,
    })),
    putIn: state.ledger.map((line) => putInLine(model, line, state)),
  };
}

/** What was put in, lifted or found, and how it was shown to be as it was. */
function putInLine(model: CircuitModel, line: JobState['ledger'][number], state: JobState): ReportLine {
  const { entry, out } = line;
  const { item, found, kind } = entry.body;
  const lifted = kind === 'lifted';
  const standing = ledgerStanding(model, line, state);
  const seen =
    standing.state !== 'shown'
      ? 'not shown'
      : 'second' in standing.by
        ? `seen by ${standing.by.second}`
        : 'shown by a reading';
  return {
    text: `${item}${found ? ', found in the machine' : ''}`,
    beside:
      out === null
        ? lifted
          ? 'still off'
          : 'still in'
        : `${lifted ? 'back on' : 'out'}: ${out.entry.person}, ${seen}`,
    tone: standing.state === 'shown' ? 'good' : 'bad',
  };
}

const NOT_SIGNED: ReportLine = { text: 'The plan was not signed.', tone: 'bad' };

/** How a point was closed, and how it was proved. */
function isolationLine({ body, person }: EntryOf<'isolation'>, when: string): ReportLine {
  const released = body.released ? `, ${body.released}` : '';
  return {
    text: `${[pointTitle(body.point), body.how].filter(Boolean).join(': ')}${body.lock ? `, lock ${body.lock}` : ''}${released}, ${person}, ${when}`,
    beside: body.proved
      ? `proved dead: ${body.proved.work.map(({ from, to, measured }) => `${from} to ${to} ${quantity('volts', measured.value)}`).join(', ')}${body.proved.meter ? `, ${body.proved.meter}` : ''}`
      : (body.tried ?? ''),
  };
}

/** A point closed, the plan signed, a point opened for a test, or a lock that somebody else than its owner took off. */
function safetyLine(entry: JobState['safetyTrail'][number], when: string): ReportLine[] {
  if (entry.type === 'isolation') return [isolationLine(entry, when)];
  const { person, body } = entry;
  const beside = `${person}${body.second ? ` beside ${body.second}` : ''}, ${when}`;
  if (entry.type === 'madeSafe') return [{ text: 'Signed as made safe', beside }];
  const { point, owner, reason, setup } = entry.body;
  // That locks come off when the work is done is told by the proofs.
  if (owner === undefined && setup === undefined) return [];
  const title = pointTitle(point);
  const text =
    owner === undefined
      ? `${title} opened for a test: ${reason}`
      : `Lock of ${owner} on ${title} taken off: ${reason}`;
  return [{ text, beside, tone: 'left' }];
}
