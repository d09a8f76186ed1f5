'use client';

import { useCallback, useMemo, useState } from 'react';
import type { Reading, Test } from '@/core/circuit/schema';
import { swapTests, unplugTests } from '@/core/diagnosis/codeEvidence';
import { testKey } from '@/core/diagnosis/observations';
import { meaningLimits } from '@/core/diagnosis/meaningLimits';
import type { Verdict } from '@/core/diagnosis/verdict';
import { yardsticks } from '@/core/diagnosis/yardsticks';
import { chooseLane, drivenAs } from '@/core/path/chooseLane';
import { lazyPart } from '@/ui/lazyPart';
import { useDesk } from '../desk/desk';
import { toPutBack } from '@/core/job/rules/putBack';
import { stillToTakeOut } from '@/core/job/rules/ledgerStanding';
import { choicesOf, Keyline, meaningOf } from './Keyline';
import { movedLeads, nextPoint } from './movedLeads';
import { EDGE, PathBand } from './PathBand';
import { pinsOf } from './pins';
import { SuspectList } from './SuspectList';
import { TestTag } from './TestTag';
import { VerdictTag } from './VerdictTag';
import { GateClosed } from './GateClosed';
import { useHold } from './useHold';
import { useShortWindow } from '@/ui/useShortWindow';
import { keptSource, keepSource, TYPED } from '../meter/liveSource';
import { LIVE_OFF, offeredBy, type LiveReading } from '@/core/instrument/offered';
import { useMeter } from './useMeter';
import { useSupposed } from './useSupposed';
import { evenStandings } from '@/core/path/evenStandings';
import { ownSetup } from './testAddress';
import { useAskedTest } from './useAskedTest';
import { usePinning } from './usePinning';
import { CalculationStopped, CannotBeTaken, Choosing } from './Notices';
import { usePathView } from './usePathView';
import { useTestKeys } from './useTestKeys';
import { limitWords, yardstickWords } from '@/words/en/answers';
import { valueWords } from '@/words/en/readings';
import { statementLines } from '@/words/en/findings';

// What most tests never show comes when it is called for: the screen is on the way to a tablet in the cold.
const BusAnswer = lazyPart(() => import('../bus/BusAnswer').then((one) => one.BusAnswer));
const InMachine = lazyPart(() => import('../prove/InMachine').then((one) => one.InMachine));
const KeysDialog = lazyPart(() => import('./KeysDialog').then((one) => one.KeysDialog));
const MeterDialog = lazyPart(() => import('./MeterDialog').then((one) => one.MeterDialog));
const HandsFull = lazyPart(() => import('./HandsFull').then((one) => one.HandsFull));
const ListenForClick = lazyPart(() => import('./ListenForClick').then((one) => one.ListenForClick));
const LiveMeter = lazyPart(() => import('../meter/LiveMeter').then((one) => one.LiveMeter));

const NOTHING_READ: Verdict = { state: 'keepTesting', because: 'noReading' };

/** The test screen: path above, suspects and next test in the middle, keyline at the bottom edge. */
export function TestScreen() {
  const { job, speaker, log, outlook, working, failure, again, readings } = useDesk();
  const { model, lanes } = speaker;
  const { compiled } = model;
  const unplug = useMemo(() => [...unplugTests(model), ...swapTests(model)], [model]);
  const [openPart, setOpenPart] = useState<string | null>(null);
  const [goOn, setGoOn] = useState(false);
  const [folded, setFolded] = useState(true);
  const [announced, setAnnounced] = useState('');
  const [keysShown, setKeysShown] = useState(false);
  const [meterShown, setMeterShown] = useState(false);
  const [meter, setMeter] = useMeter();
  const [large, setLarge] = useState(false);
  const [source, setSource] = useState(keptSource);
  const [live, setLive] = useState<LiveReading>(LIVE_OFF);
  const [whatIf, setWhatIf] = useState<Reading | null>(null);

  const verdict = outlook?.diagnosis.verdict ?? NOTHING_READ;
  const next = outlook?.diagnosis.next ?? [];
  const { chosen, ranked, trouble, laneId, go, ask, begin, letGo } = useAskedTest(goOn);
  const test = ranked?.test;
  const pair = test && 'from' in test ? test : null;
  const leads = useMemo(
    () =>
      pair ? { plus: compiled.nodeIndex.get(pair.from)!, minus: compiled.nodeIndex.get(pair.to)! } : null,
    [pair, compiled],
  );

  const standings = useMemo(
    () => outlook?.standings ?? evenStandings(compiled.parts.length),
    [outlook, compiled],
  );
  const gauge =
    test && (test.kind === 'pressure' || test.kind === 'flow')
      ? (compiled.nodeIndex.get(test.at) ?? null)
      : null;
  const asked = useMemo(
    () => (leads ? [leads.plus, leads.minus] : gauge === null ? [] : [gauge]),
    [leads, gauge],
  );
  const lane = useMemo(() => {
    const called = lanes.lanes.find(({ id }) => id === laneId);
    const setup = test?.setup;
    return called
      ? drivenAs(lanes, called, [setup])
      : chooseLane(lanes, { asked, setup, standings }, readings);
  }, [lanes, laneId, test, asked, standings, readings]);
  const hold = useHold(ranked);
  // On a low screen the path gives room: every answer shows beside a hold, a gate or what is in the machine.
  const short = useShortWindow();
  const inMachine = stillToTakeOut(model, log.state).length > 0;
  const low = short && (hold.words.mustTick || hold.shut || inMachine || (ranked?.outcomes.length ?? 0) > 3);
  const view = usePathView(speaker, lane, standings, asked, low);
  const { layout, width } = view;
  const limits = useMemo(() => (test ? meaningLimits(model, test) : []), [model, test]);
  const { pins, spans } = useMemo(
    () => (lane ? pinsOf(speaker, lane, readings) : { pins: [], spans: [] }),
    [speaker, lane, readings],
  );

  const { past, marks, policy } = job;
  const back = useMemo(() => (test ? toPutBack(log.state, test).back : {}), [log.state, test]);
  const skip = (one: Test) => {
    letGo();
    log.write({ type: 'skippedTest', body: { test: one } });
  };
  const { baselines } = past;
  const heldAgainst = useMemo(
    () =>
      test
        ? yardsticks(model, test, { readings, baselines, marks }).map((one) =>
            yardstickWords(test.kind, one, policy.timeZone, policy.gaugeUnit),
          )
        : [],
    [model, test, readings, baselines, marks, policy],
  );
  const pinning = usePinning(ranked, meter, hold, offeredBy(live), (words) => {
    setAnnounced(words);
    setGoOn(false);
    setWhatIf(null);
    ask(null);
  });
  const { text, check, clear } = pinning;
  const tick = (ticked: boolean) => {
    if (ticked) begin();
    else if (text === '') letGo();
    hold.tick(ticked);
  };
  const onKey = (pressed: string) => {
    begin();
    pinning.onKey(pressed);
  };
  const onErase = () => {
    if (text.length <= 1 && !hold.held) letGo();
    pinning.onErase();
  };
  const lit = check.state === 'ready' && text !== '' ? check.outcome : null;

  const choose = useCallback(
    (wanted: Test | null) => {
      clear();
      ask(wanted);
    },
    [ask, clear],
  );

  /** Moves the nearer lead, or the given one, to a node; leads never stand on the same point. */
  const moveLead = useCallback(
    (node: number, which?: 'plus' | 'minus') => {
      if (!layout) return;
      if (compiled.domains[node] === 'fluid') {
        if (node !== compiled.atmosphere)
          choose({ kind: 'pressure', at: compiled.nodeNames[node]!, setup: lane?.setup ?? {} });
        return;
      }
      const base = leads ?? { plus: layout.points[0]!.node, minus: compiled.frame };
      const moved = movedLeads(layout, base, node, which);
      if (!moved) return;
      const kind = pair?.kind === 'ohms' ? 'ohms' : 'volts';
      const setup = pair && pair.kind === kind ? pair.setup : ownSetup(model, kind, lane?.setup ?? {});
      choose({
        kind,
        from: compiled.nodeNames[moved.plus]!,
        to: compiled.nodeNames[moved.minus]!,
        setup,
      });
    },
    [choose, compiled, lane, layout, leads, model, pair],
  );

  const setMode = (kind: 'volts' | 'ohms') => {
    if (!pair) return;
    choose({ kind, from: pair.from, to: pair.to, setup: ownSetup(model, kind, lane?.setup ?? {}) });
  };

  const unpin = useCallback(() => {
    const last = log.state.readings.at(-1);
    if (!last) return;
    log.write({ type: 'withdrawal', supersedes: last.entry.id, body: {} });
    setAnnounced('Unpinned the last reading. It stays in the record.');
  }, [log]);

  useTestKeys({
    enabled: ranked !== undefined,
    onKey: (pressed) => {
      const choices = ranked ? choicesOf(ranked) : null;
      if (choices) pinning.pinChoice(choices[Number(pressed) - 1]);
      else onKey(pressed);
    },
    onErase,
    onPin: pinning.onPin,
    onEscape: () => {
      if (text) {
        pinning.setText('');
        letGo();
      } else if (chosen) choose(null);
      else setOpenPart('');
    },
    onStepPoint: (direction, other) => {
      if (!layout) return;
      const from = other ? (leads?.minus ?? compiled.frame) : (leads?.plus ?? layout.points[0]!.node);
      moveLead(nextPoint(layout, from, direction), other ? 'minus' : 'plus');
    },
    onUndo: unpin,
    onHold: () => tick(!hold.held),
    onKeysHelp: () => setKeysShown(true),
    onStep: (direction) => {
      const tabs = [...document.querySelectorAll<HTMLAnchorElement>('nav[aria-label="Steps of the job"] a')];
      const at = tabs.findIndex((tab) => tab.getAttribute('aria-current') === 'step');
      tabs[at + direction]?.click();
    },
  });

  const supposed = useSupposed(whatIf, test ?? null);

  const tagLeft = width < 1180 ? 400 + EDGE * 2 : 472 + EDGE * 2;
  const statement = failure
    ? ['The calculation stopped. Your readings are safe.']
    : outlook
      ? statementLines(speaker, verdict, outlook.diagnosis.suspects, standings, outlook.readings, next[0])
      : ['Working out what every fault on this path would read.'];

  return (
    <main className="flex min-h-0 flex-1 flex-col" data-working={working}>
      <p className="sr-only" role="status" aria-live="polite">
        {announced}
      </p>
      <div className="flex min-h-0 flex-1 flex-col max-desk:overflow-y-auto">
        <PathBand
          speaker={speaker}
          lane={lane}
          view={view}
          standings={standings}
          pins={pins}
          spans={spans}
          leads={leads}
          gauge={gauge}
          tagLeft={tagLeft}
          typed={
            text && check.state === 'ready' ? valueWords(test!.kind, check.value, speaker.gaugeUnit) : ''
          }
          statement={statement}
          noReach={log.state.noReach}
          test={test ?? null}
          stale={working}
          onPoint={(node) => moveLead(node)}
          onLane={(id) => go({ lane: id })}
          onRun={setOpenPart}
        />
        <div
          className="grid min-h-0 flex-1 gap-6 border-t-2 border-ink bg-film px-6 py-5 max-desk:flex-none max-desk:grid-cols-1 max-tablet:order-1 max-tablet:gap-3 max-tablet:px-2.5 max-tablet:py-2.5 desk:grid-cols-[var(--suspects)_minmax(0,1fr)] desk:pt-[18px] desk:pb-2"
          style={{ '--suspects': `${tagLeft - EDGE * 2}px` } as React.CSSProperties}
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
          ) : trouble ? (
            <CannotBeTaken trouble={trouble} onBack={() => choose(null)} />
          ) : !outlook ? (
            <Choosing own={false} />
          ) : ranked ? (
            <TestTag
              speaker={speaker}
              ranked={ranked}
              others={next.filter((one) => one !== ranked)}
              verdict={verdict}
              own={chosen !== null}
              back={back}
              lit={lit}
              held={hold.held}
              hold={hold.words}
              onHeld={tick}
              onChoose={choose}
              onMode={setMode}
              onNoReach={(node) => {
                letGo();
                log.write({ type: 'noReach', body: { node } });
              }}
              unplug={unplug}
              heldAgainst={heldAgainst}
              mind={limits[0] ? limitWords(speaker, limits[0]) : null}
              whatIf={whatIf}
              onWhatIf={setWhatIf}
              below={
                <>
                  {inMachine ? <InMachine /> : null}
                  {hold.shut ? (
                    <GateClosed gate={hold.gate} plan={hold.plan} />
                  ) : test?.kind === 'click' ? (
                    <ListenForClick key={testKey(test)} />
                  ) : test?.kind === 'code' ? (
                    <BusAnswer test={test} onTake={pinning.pinChoice} key={testKey(test)} />
                  ) : null}
                </>
              }
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
      {ranked ? (
        <Keyline
          speaker={speaker}
          ranked={ranked}
          text={text}
          check={check}
          askAgain={pinning.askAgain}
          blocked={hold.blocked}
          shut={hold.shut}
          folded={folded}
          onFold={() => setFolded(!folded)}
          onKey={onKey}
          onErase={onErase}
          meterName={meter.name}
          onMeter={() => setMeterShown(true)}
          live={live}
          onLarge={() => setLarge(true)}
          onPin={pinning.onPin}
          onChoice={pinning.pinChoice}
          onNotTried={() => skip(ranked.test)}
        />
      ) : null}
      {keysShown ? <KeysDialog open onOpenChange={setKeysShown} /> : null}
      {large && ranked ? (
        <HandsFull
          speaker={speaker}
          ranked={ranked}
          text={text}
          meaning={meaningOf({
            speaker,
            ranked,
            check,
            askAgain: pinning.askAgain,
            blocked: hold.blocked,
            shut: hold.shut,
            live,
          })}
          live={live}
          hold={hold.words}
          back={back}
          blocked={hold.blocked}
          onPin={pinning.onPin}
          onClose={() => setLarge(false)}
        />
      ) : null}
      {source.from === 'typed' ? null : (
        <LiveMeter
          source={source}
          model={model}
          machine={job.machineCode}
          functionName={job.functionName}
          test={test}
          onReading={setLive}
        />
      )}
      {meterShown ? (
        <MeterDialog
          open
          meter={meter}
          source={source}
          onOpenChange={setMeterShown}
          onKeep={setMeter}
          onSource={(next) => {
            keepSource(next);
            setSource(next);
            if (next.from === TYPED.from) setLive(LIVE_OFF);
          }}
        />
      ) : null}
    </main>
  );
}
