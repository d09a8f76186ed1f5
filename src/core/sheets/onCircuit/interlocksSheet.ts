import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import { findLanes, type Step } from '../../path/lanes';
import { FED_SHARE, judgeInterlocks, SUPPLY } from '../interlocks/interlocks';
import {
  cellOf,
  firstOpen,
  HEAD,
  nameOf,
  pickBetween,
  underCommand,
  volts,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';

interface Link {
  name: string;
  /** It should be closed in this position; undefined where a pressure says so, which nobody read here. */
  pressed: true | undefined;
  cell: SheetCell | null;
  ahead?: string[];
}

/** The steps of a feed between two of them. */
function wayBetween(feed: readonly Step[], one: Step, other: Step): readonly Step[] {
  return feed.slice(feed.indexOf(one) + 1, feed.indexOf(other));
}

/** The longest chain of contacts ahead of one load: volts behind each, in the position that should feed it. */
export function interlocksSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
): JobSheet<'interlocks'> | null {
  const { compiled } = model;
  const frame = nameOf(model, compiled.frame);
  const chains = findLanes(model)
    .lanes.filter(({ medium }) => medium === 'electrical')
    .map((lane) => ({
      lane,
      contacts: lane.feed.filter(({ part }) => {
        const { kind } = compiled.parts[part]!.part;
        return kind === 'switch' || kind === 'pressureSwitch';
      }),
    }))
    .sort((a, b) => b.contacts.length - a.contacts.length);
  const chain = chains[0];
  if (!chain || chain.contacts.length < 2) return null;
  const { lane, contacts } = chain;
  const commanded = underCommand(lane.setup);
  const fed = (node: number) =>
    cellOf(
      model,
      pickBetween(
        model,
        'volts',
        [nameOf(model, node), frame],
        (test, expected) => commanded(test) && typeof expected === 'number' && Math.abs(expected) > 1,
      ),
      readings,
    );
  const supply = fed(contacts[0]!.from);
  const links = contacts.flatMap((contact, at): Link[] => {
    const between = at === 0 ? [] : wayBetween(lane.feed, contacts[at - 1]!, contact);
    const refs = between.map(({ part }) => compiled.parts[part]!.part.ref);
    // What lies between two contacts loses volts like they do: it has a place of its own, where one can be read.
    const ahead = refs.length > 0 ? fed(contact.from) : null;
    const { ref, kind } = compiled.parts[contact.part]!.part;
    const own = {
      name: ref,
      pressed: kind === 'pressureSwitch' ? undefined : (true as const),
      cell: fed(contact.to),
    };
    if (ahead) return [{ name: refs.join(', '), pressed: true, cell: ahead }, own];
    return [refs.length > 0 ? { ...own, ahead: refs } : own];
  });
  const atSupply = volts(supply);
  const nominal = typeof supply?.expected === 'number' ? Math.abs(supply.expected) : undefined;
  const read = [
    ...(atSupply === undefined ? [] : [{ after: SUPPLY, value: atSupply }]),
    ...links.flatMap(({ name, cell }) =>
      volts(cell) === undefined ? [] : [{ after: name, value: volts(cell)! }],
    ),
  ];
  const isFed = (value: number | undefined) =>
    value !== undefined && value >= FED_SHARE * (atSupply ?? nominal ?? Infinity);
  const answer = judgeInterlocks({
    ...HEAD,
    sheet: 'interlocks',
    switches: links.map(({ name, pressed }) => ({ name, type: 'NO', pressed })),
    volts: read,
    // A point behind it that is fed shows that it is; nothing else does but a reading.
    supplyVolts: atSupply !== undefined || links.some(({ cell }) => isFed(volts(cell))) ? nominal : undefined,
  });
  const isDead = answer.findings.some(({ code }) => code === 'noSupply');
  const rows: SheetRow<'interlocks'>[] = [
    { name: SUPPLY, cells: [supply], verdict: null },
    ...links.map(({ name, pressed, cell, ahead }): SheetRow<'interlocks'> => ({
      name,
      ...(ahead ? { ahead } : {}),
      cells: [cell],
      // One of several that the loss may lie at is not condemned.
      verdict:
        answer.firstLoss?.name === name && answer.suspect.includes(name)
          ? pressed
            ? 'bad'
            : 'doubt'
          : !isDead && isFed(volts(cell)) && !answer.suspect.includes(name)
            ? 'good'
            : null,
    })),
  ];
  const { next } = answer;
  const at =
    next && typeof next === 'object' && 'after' in next
      ? rows.findIndex(({ name }) => name === next.after)
      : -1;
  return {
    name: 'interlocks',
    columns: ['volts'],
    rows,
    // Without a supply no point of the chain says anything.
    next:
      answer.firstLoss || isDead
        ? null
        : at >= 0 && rows[at]!.cells[0]?.value === null
          ? [at, 0]
          : firstOpen(rows),
    answers: [answer],
  };
}
