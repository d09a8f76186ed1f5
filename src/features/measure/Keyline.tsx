'use client';

import { Delete, X } from 'lucide-react';
import { GAUGE_STANDS, MOTIONS, type Reading, type Test } from '@/core/circuit/schema';
import { COIL_CONDITIONS } from '@/core/trace/conditions';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { LiveReading } from '@/core/instrument/offered';
import { WANDERS } from '@/core/units/wandering';
import { liveWords } from '@/words/en/liveMeter';
import { LiveLine } from '../meter/LiveLine';
import { outcomeLetter, type TypedCheck } from './typedValue';
import { modeName, testPlace, valueWords, type Speaker } from '@/words/en/readings';

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0', '.', '-', 'm', 'k', 'M', 'OL', WANDERS];
const TESTER_KEYS: Readonly<Record<string, string>> = { '-': '>', m: 'G' };

/** The key that says nothing in a mode: a keypad of eighteen has no room for it. */
function spareKey(kind: Test['kind']): string {
  if (kind === 'insulation') return 'k';
  return kind === 'ohms' || kind === 'diode' ? '-' : 'M';
}

export interface KeylineProps {
  speaker: Speaker;
  ranked: RankedTest;
  text: string;
  check: TypedCheck;
  /** Pressed once with a value that fits no outcome. */
  askAgain: boolean;
  blocked: boolean;
  /** The work is not made safe: no tick opens this test. */
  shut: boolean;
  folded: boolean;
  onFold: () => void;
  onKey: (key: string) => void;
  onErase: () => void;
  meterName: string;
  onMeter: () => void;
  /** The same figure in the large, for who has no hand free. */
  onLarge: () => void;
  /** What a meter on a wire shows; it stands in the keyline like something typed, and is pinned by a person all the same. */
  live: LiveReading;
  onPin: () => void;
  onChoice: (value: Reading['value']) => void;
  /** Nobody tried: nothing is pinned, and the test is not asked for again. */
  onNotTried: () => void;
}

/** The printed rule along the bottom edge; its cells are keys. It never pins by itself. */
export function Keyline(props: KeylineProps) {
  const { speaker, ranked, text, check, askAgain, blocked, folded, onFold, onKey, onErase, onPin } = props;
  const { test } = ranked;
  const choices = choicesOf(ranked);
  const meaning = meaningOf(props);
  const refused = check.state === 'refused';
  // While nothing is typed, a live meter says in the value's place why it offers none.
  const liveSays = !choices && check.state === 'empty' && liveWords(props.live) !== '';
  const isLive = props.live.is === 'steady' || props.live.is === 'wanders';
  const keys = KEYS.map((key) => (test.kind === 'insulation' ? (TESTER_KEYS[key] ?? key) : key));
  return (
    <section
      aria-label="Keyline"
      className="flex shrink-0 border-t-2 border-ink bg-sheet max-desk:flex-col desk:h-[88px]"
    >
      <button
        type="button"
        onClick={onFold}
        className="flex min-h-[58px] items-center justify-between bg-sheet px-3 tablet:hidden"
        aria-expanded={!folded}
      >
        <span
          className={`fig-bold ${text ? 'text-[28px]' : 'text-[18px]'} ${refused ? 'text-stamp' : 'text-pencil'}`}
        >
          {text || (folded ? `Reading, ${testPlace(speaker, test)}` : '')}
        </span>
        <span
          className={`max-w-[55%] text-right text-[15px] leading-[18px] ${refused ? 'text-stamp' : 'text-pencil'}`}
        >
          {folded && !text && !liveSays ? 'Tap to enter' : meaning}
        </span>
      </button>
      {folded ? null : (
        <div className="flex gap-6 border-t border-edge px-3 tablet:hidden">
          <button
            type="button"
            onClick={props.onMeter}
            className="min-h-11 text-left text-[15.5px] underline underline-offset-2"
          >
            Meter: {props.meterName}
          </button>
          <button
            type="button"
            onClick={props.onLarge}
            className="ml-auto min-h-11 text-[15.5px] underline underline-offset-2"
          >
            Large view
          </button>
        </div>
      )}
      <div className="hidden w-[266px] shrink-0 flex-col justify-center border-r-2 border-ink px-6 tablet:flex max-desk:w-full max-desk:border-r-0">
        <p className="flex items-center gap-2 text-[15px] text-ink2">
          <span className="min-w-0 flex-1 truncate">
            {testPlace(speaker, test)}, {modeName(speaker, test)}
          </span>
          <button
            type="button"
            onClick={props.onMeter}
            className="-my-2 flex min-h-9 items-center text-ink underline underline-offset-2"
            aria-label={`Meter: ${props.meterName}`}
          >
            {isLive ? 'live meter' : 'meter'}
          </button>
          <button
            type="button"
            onClick={props.onLarge}
            className="-my-2 flex min-h-9 items-center text-ink underline underline-offset-2"
            aria-label="Large view"
          >
            large
          </button>
        </p>
        {liveSays ? <LiveLine live={props.live} /> : null}
        <p
          hidden={liveSays}
          className={`fig-bold ${liveSays ? '' : 'flex'} h-9 items-center text-[32px] leading-9 ${refused ? 'text-stamp' : 'text-pencil'}`}
          data-testid="typed"
        >
          {text}
          <span className="ml-0.5 inline-block h-8 w-[3px] bg-pencil" aria-hidden />
        </p>
        <p
          hidden={liveSays}
          className={`${liveSays ? '' : 'flex'} items-center gap-1 truncate text-[15px] ${refused ? 'text-stamp' : 'text-pencil'}`}
          role="status"
          data-testid="meaning"
        >
          {refused ? <X size={16} strokeWidth={3} className="shrink-0" aria-hidden /> : null}
          <span className="truncate" title={meaning}>
            {meaning}
          </span>
        </p>
      </div>
      {choices ? (
        <div className={`flex min-h-[53px] flex-1 ${folded ? 'max-tablet:hidden' : ''}`}>
          {choices.map((value, at) => (
            <button
              key={String(value)}
              type="button"
              data-choice={valueWords(test.kind, value, speaker.gaugeUnit)}
              onClick={() => props.onChoice(value)}
              className="flex-1 border-r border-edge bg-well px-2 text-[20px] font-[750]"
            >
              <span className="fig mr-2 text-[15px] font-normal text-ink2 max-tablet:hidden" aria-hidden>
                {at + 1}
              </span>
              {valueWords(test.kind, value, speaker.gaugeUnit)}
            </button>
          ))}
          {test.kind === 'moves' ? (
            <button
              type="button"
              onClick={props.onNotTried}
              className="flex-1 border-r border-edge bg-sheet px-2 text-[20px] font-[650] text-ink2"
            >
              not tried
            </button>
          ) : null}
        </div>
      ) : (
        <div
          className={`grid flex-1 grid-cols-6 tablet:grid-cols-9 desk:flex ${folded ? 'max-tablet:hidden' : ''}`}
        >
          {keys.map((key) => (
            <Key
              key={key}
              onPress={() => onKey(key)}
              label={key === '-' ? 'minus' : key === WANDERS ? 'wanders, next value' : key}
              {...(key === spareKey(test.kind) ? { className: 'max-desk:hidden' } : {})}
            >
              {key === '-' ? '−' : key}
            </Key>
          ))}
          <Key onPress={onErase} label="Erase">
            <Delete size={24} aria-hidden />
          </Key>
          <PinButton
            blocked={blocked}
            ready={check.state === 'ready'}
            askAgain={askAgain}
            onPin={onPin}
            inGrid
          />
        </div>
      )}
      {choices ? null : (
        <PinButton
          blocked={blocked}
          ready={check.state === 'ready'}
          askAgain={askAgain}
          onPin={onPin}
          inGrid={false}
        />
      )}
    </section>
  );
}

function PinButton({
  blocked,
  ready,
  askAgain,
  onPin,
  inGrid,
}: {
  blocked: boolean;
  ready: boolean;
  askAgain: boolean;
  onPin: () => void;
  inGrid: boolean;
}) {
  return (
    <button
      type="button"
      onClick={onPin}
      aria-disabled={blocked || !ready}
      className={`bg-pencil text-[20px] font-[750] text-sheet ${
        inGrid ? 'min-h-[53px] desk:hidden' : 'hidden w-[120px] shrink-0 desk:block'
      }`}
    >
      {askAgain ? 'Pin it all the same' : 'Pin it'}
    </button>
  );
}

function Key({
  children,
  label,
  onPress,
  className = '',
}: {
  children: React.ReactNode;
  label: string;
  onPress: () => void;
  className?: string;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={onPress}
      tabIndex={-1}
      className={`fig-bold relative flex min-h-[53px] items-center justify-center border-r border-b border-edge bg-well text-[24px] desk:flex-1 desk:border-b-0 ${className}`}
    >
      <span className="absolute top-0 left-1/2 hidden h-1.5 w-px bg-ink desk:block" aria-hidden />
      {children}
    </button>
  );
}

/** Answers of a test that is not a number; digits choose them in this order. */
export function choicesOf({
  test,
  outcomes,
}: Pick<RankedTest, 'test' | 'outcomes'>): Reading['value'][] | null {
  switch (test.kind) {
    case 'function':
      return ['works', 'weak', 'dead'];
    case 'click':
      return [true, false];
    case 'bit':
      return ['1', '0'];
    case 'fuse':
      return ['holds', 'blows'];
    case 'code': {
      const seen = outcomes.map(({ reading }) => reading);
      return seen.some((one) => Array.isArray(one) && one.length === 0) ? seen : [...seen, []];
    }
    case 'moves':
      return [...MOTIONS];
    case 'gauge':
      return [...GAUGE_STANDS];
    case 'trace':
      return [...COIL_CONDITIONS];
    case 'hold':
      return ['holds', 'falls'];
    case 'flow':
      return ['none', 'bubbles', 'weak', 'full'];
    case 'volts':
    case 'hertz':
    case 'ohms':
    case 'diode':
    case 'insulation':
    case 'amps':
    case 'pressure':
    case 'changes':
      return null;
    default:
      return test satisfies never;
  }
}

/** What a typed value comes to for the test at hand, or why it is not taken. */
export function meaningOf({
  speaker,
  ranked,
  check,
  askAgain,
  blocked,
  shut,
  live,
}: Pick<KeylineProps, 'speaker' | 'ranked' | 'check' | 'askAgain' | 'blocked' | 'shut' | 'live'>): string {
  switch (check.state) {
    case 'empty':
      if (choicesOf(ranked)) return 'Press what you see';
      if (liveWords(live) !== '') return liveWords(live);
      if (ranked.test.kind === 'changes')
        return `The gauge as it changes over, in ${speaker.gaugeUnit}; OL where it does not`;
      return ranked.test.kind === 'pressure'
        ? `As the gauge shows it, in ${speaker.gaugeUnit}`
        : 'Type it as the meter shows it';
    case 'refused':
      return check.why;
    case 'ready': {
      if (blocked) return shut ? 'Make safe first.' : 'Tick “Clear” on the hold first.';
      const value = valueWords(ranked.test.kind, check.value, speaker.gaugeUnit);
      if (check.outcome !== null) return `${value} falls in ${outcomeLetter(check.outcome)}`;
      return askAgain
        ? `${value}: pin it once more to keep it.`
        : 'Fits nothing here. Check the points and the mode.';
    }
  }
}
