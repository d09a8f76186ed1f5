'use client';

import { useCallback, useMemo, useState } from 'react';
import type { Reading, Test } from '@/core/circuit/schema';
import type { Verdict } from '@/core/diagnosis/verdict';
import { stillToTakeOut } from '@/core/job/rules/ledgerStanding';
import { toPutBack } from '@/core/job/rules/putBack';
import { lazyPart } from '@/ui/lazyPart';
import { useShortWindow } from '@/ui/useShortWindow';
import { statementLines } from '@/words/en/findings';
import { valueWords } from '@/words/en/readings';
import { useDesk } from '../desk/desk';
import { AnswerBar } from './AnswerBar';
import { AskedTag } from './AskedTag';
import { choicesOf } from './Keyline';
import { MeterTools } from './MeterTools';
import { CalculationStopped, CannotBeTaken, Choosing } from './Notices';
import { EDGE, PathBand } from './PathBand';
import { SuspectList } from './SuspectList';
import { useAnswer } from './useAnswer';
import { useAskedTest } from './useAskedTest';
import { useHold } from './useHold';
import { useLeadMoves } from './useLeadMoves';
import { useMeterInUse } from './useMeterInUse';
import { usePathOfTest } from './usePathOfTest';
import { useSupposed } from './useSupposed';
import { useTestKeys } from './useTestKeys';
import { VerdictTag } from './VerdictTag';

const KeysDialog = lazyPart(() => import('./KeysDialog').then((one) => one.KeysDialog));

const NOTHING_READ: Verdict = { state: 'keepTesting', because: 'noReading' };
/** Up to so many answers leave the path its height on a low screen. */
const FEW_ANSWERS = 3;
/** Width of the list of suspects, px, on a screen that is wide and on one that is less so. */
const SUSPECTS_PX = { wide: 472, narrow: 400 } as const;
const WIDE_PX = 1180;

/** The test screen: path above, suspects and next test in the middle, keyline at the bottom edge. */
export function TestScreen() {
  const { speaker, log, outlook, working, failure, again } = useDesk();
  const [openPart, setOpenPart] = useState<string | null>(null);
  const [goOn, setGoOn] = useState(false);
  const [announced, setAnnounced] = useState('');
  const [keysShown, setKeysShown] = useState(false);
  const [meterShown, setMeterShown] = useState(false);
  const [whatIf, setWhatIf] = useState<Reading | null>(null);

  const verdict = outlook?.diagnosis.verdict ?? NOTHING_READ;
  const next = outlook?.diagnosis.next ?? [];
  const asked = useAskedTest(goOn);
  const { chosen, ranked, ask, letGo } = asked;
  const test = ranked?.test;
  const hold = useHold(ranked);
  const meter = useMeterInUse();
  const supposed = useSupposed(whatIf, test ?? null);
  const back = useMemo(() => (test ? toPutBack(log.state, test).back : {}), [log.state, test]);
  const inMachine = stillToTakeOut(speaker.model, log.state).length > 0;
  // On a low screen the path gives room: every answer shows beside a hold, a gate or what is in the machine.
  const crowded =
    hold.words.mustTick || hold.shut || inMachine || (ranked?.outcomes.length ?? 0) > FEW_ANSWERS;
  const path = usePathOfTest(test, asked.laneId, useShortWindow() && crowded);
  const answer = useAnswer(asked, hold, meter, (words) => {
    setAnnounced(words);
    setGoOn(false);
    setWhatIf(null);
    ask(null);
  });
  const { text, check, clear } = answer;
  const choose = useCallback(
    (wanted: Test | null) => {
      clear();
      ask(wanted);
    },
    [ask, clear],
  );
  const { moveLead, stepPoint, setMode } = useLeadMoves(path, choose);
  const skip = (one: Test) => {
    letGo();
    log.write({ type: 'skippedTest', body: { test: one } });
  };

  useTestKeys({
    enabled: ranked !== undefined,
    onKey: (pressed) => {
      const choices = ranked ? choicesOf(ranked) : null;
      if (choices) answer.pinChoice(choices[Number(pressed) - 1]);
      else answer.onKey(pressed);
    },
    onErase: answer.onErase,
    onPin: answer.onPin,
    onEscape: () => {
      if (text) answer.drop();
      else if (chosen) choose(null);
      else setOpenPart('');
    },
    onStepPoint: stepPoint,
    onUndo: () => {
      const last = log.state.readings.at(-1);
      if (!last) return;
      log.write({ type: 'withdrawal', supersedes: last.entry.id, body: {} });
      setAnnounced('Unpinned the last reading. It stays in the record.');
    },
    onHold: () => answer.tick(!hold.held),
    onKeysHelp: () => setKeysShown(true),
    onStep: pressStep,
  });

  const suspectsPx = path.view.width < WIDE_PX ? SUSPECTS_PX.narrow : SUSPECTS_PX.wide;
  const statement = failure
    ? ['The calculation stopped. Your readings are safe.']
    : outlook
      ? statementLines(
          speaker,
          verdict,
          outlook.diagnosis.suspects,
          path.standings,
          outlook.readings,
          next[0],
        )
      : ['Working out what every fault on this path would read.'];
  const typed = text && check.state === 'ready' && test ? check.value : null;
  return (
    <main className="flex min-h-0 flex-1 flex-col" data-working={working}>
      <p className="sr-only" role="status" aria-live="polite">
        {announced}
      </p>
      <div className="flex min-h-0 flex-1 flex-col max-desk:overflow-y-auto">
        <PathBand
          speaker={speaker}
          lane={path.lane}
          view={path.view}
          standings={path.standings}
          pins={path.pins}
          spans={path.spans}
          leads={path.leads}
          gauge={path.gauge}
          tagLeft={suspectsPx + EDGE * 2}
          typed={typed === null ? '' : valueWords(test!.kind, typed, speaker.gaugeUnit)}
          statement={statement}
          noReach={log.state.noReach}
          test={test ?? null}
          stale={working}
          onPoint={(node) => moveLead(node)}
          onLane={(id) => asked.go({ lane: id })}
          onRun={setOpenPart}
        />
        <div
          className="grid min-h-0 flex-1 gap-6 border-t-2 border-ink bg-film px-6 py-5 max-desk:flex-none max-desk:grid-cols-1 max-tablet:order-1 max-tablet:gap-3 max-tablet:px-2.5 max-tablet:py-2.5 desk:grid-cols-[var(--suspects)_minmax(0,1fr)] desk:pt-[18px] desk:pb-2"
          style={{ '--suspects': `${suspectsPx}px` } as React.CSSProperties}
        >
          <div className="flex min-h-0 min-w-0 flex-col max-desk:order-2">
            <SuspectList
              speaker={speaker}
              outlook={supposed ?? outlook}
              readings={(supposed ?? outlook)?.readings ?? []}
              supposed={
                supposed !== null && whatIf ? valueWords(whatIf.kind, whatIf.value, speaker.gaugeUnit) : null
              }
              stale={working}
              openPart={openPart}
              onOpen={setOpenPart}
            />
          </div>
          {failure ? (
            <CalculationStopped failure={failure} onAgain={again} />
          ) : asked.trouble ? (
            <CannotBeTaken trouble={asked.trouble} onBack={() => choose(null)} />
          ) : !outlook ? (
            <Choosing own={false} />
          ) : ranked ? (
            <AskedTag
              ranked={ranked}
              others={next.filter((one) => one !== ranked)}
              verdict={verdict}
              own={chosen !== null}
              back={back}
              inMachine={inMachine}
              answer={answer}
              hold={hold}
              whatIf={whatIf}
              onWhatIf={setWhatIf}
              onChoose={choose}
              onMode={setMode}
              onLetGo={letGo}
              onSkip={skip}
            />
          ) : chosen ? (
            <Choosing own />
          ) : (
            <VerdictTag
              speaker={speaker}
              outlook={outlook}
              readings={outlook.readings}
              next={next[0]}
              onGoOn={() => setGoOn(true)}
            />
          )}
        </div>
      </div>
      <AnswerBar
        ranked={ranked}
        answer={answer}
        hold={hold}
        meter={meter}
        back={back}
        onMeter={() => setMeterShown(true)}
        onNotTried={skip}
      />
      {keysShown ? <KeysDialog open onOpenChange={setKeysShown} /> : null}
      <MeterTools meter={meter} test={test} shown={meterShown} onShown={setMeterShown} />
    </main>
  );
}

/** Goes to the step before or after the one that is open, as its tab would. */
function pressStep(direction: 1 | -1): void {
  const tabs = [...document.querySelectorAll<HTMLAnchorElement>('nav[aria-label="Steps of the job"] a')];
  const at = tabs.findIndex((tab) => tab.getAttribute('aria-current') === 'step');
  tabs[at + direction]?.click();
}
