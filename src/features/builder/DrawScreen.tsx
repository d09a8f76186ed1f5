'use client';

import { Redo2, Undo2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { checkCircuit } from '@/core/build/checkCircuit';
import { mendCircuit } from '@/core/build/mendCircuit';
import type { Known } from '@/core/build/layChain';
import type { Circuit, Part, Setup } from '@/core/circuit/schema';
import { sharedParts } from '@/core/circuit/joinCircuits';
import { findLanes } from '@/core/path/lanes';
import { Brand } from '@/ui/Brand';
import { PanZoom } from '@/ui/PanZoom';
import { SchematicFigure } from '@/ui/schematic/SchematicFigure';
import { Heading, MainKey, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { ChainLine } from './ChainLine';
import { FilesMenu } from './FilesMenu';
import { KeepDialog } from './KeepDialog';
import { FieldLists, PartForm } from './PartForm';
import type { OpenDrawing } from './schema';
import { TryPanel } from './TryPanel';
import { tryValues } from './tryValues';
import { useDrawing } from './useDrawing';
import { useSchematic } from './useSchematic';
import { VersionsPanel } from './VersionsPanel';
import { findingWords, KIND_NAMES } from '@/words/en/drawing';
import { DrawnPath } from './DrawnPath';

const SHEETS = ['Parts', 'Try it', 'Versions'] as const;
type Sheet = (typeof SHEETS)[number];

/** A function drawn from nothing: typed as chains, checked as it grows, tried at once, kept in the machine's library. */
export function DrawScreen({ desk }: { desk: OpenDrawing }) {
  const router = useRouter();
  const state = useDrawing(desk.circuit, `spiraxis-drawing:${desk.machine.code}:${desk.functionId ?? 'new'}`);
  const { drawing, put, change, undo, redo } = state;
  const { circuit } = drawing;
  const [view, setView] = useState<'schematic' | 'path'>('schematic');
  const [sheet, setSheet] = useState<Sheet>('Parts');
  const [chosen, setChosen] = useState<string | null>(null);
  const [setup, setSetup] = useState<Setup>({});
  const [keeping, setKeeping] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [large, setLarge] = useState(false);
  const [marked, setMarked] = useState<readonly string[]>([]);
  const known = useMemo<Known>(() => {
    const parts = new Map<string, Part>();
    const controls: Circuit['controls'] = {};
    for (const { circuit: other } of desk.siblings) {
      for (const one of other.parts) if (!parts.has(one.ref)) parts.set(one.ref, one);
      for (const [control, positions] of Object.entries(other.controls)) {
        const own = controls[control] ?? [];
        controls[control] = [...own, ...positions.filter((position) => !own.includes(position))];
      }
    }
    return { parts: [...parts.values()], controls };
  }, [desk.siblings]);
  const findings = useMemo(() => checkCircuit(circuit), [circuit]);
  const { drawn, trouble: drawTrouble } = useSchematic(circuit);
  const tried = useMemo(() => {
    if (sheet !== 'Try it' || !drawn) return null;
    // The drawing on the screen may be a step behind the controls.
    const { controls } = drawn.model.compiled.circuit;
    const usable = Object.fromEntries(
      Object.entries(setup.controls ?? {}).filter(([name, position]) => controls[name]?.includes(position)),
    );
    const sources = (setup.isolated ?? []).filter((ref) => drawn.model.compiled.partIndex.has(ref));
    return tryValues(drawn.model, { controls: usable, isolated: sources });
  }, [sheet, drawn, setup]);
  const points = useMemo(() => (drawn ? findLanes(drawn.model).pointOf : undefined), [drawn]);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || keeping) return;
      const key = event.key.toLowerCase();
      const typing = event.target instanceof HTMLElement && event.target.matches('input,textarea,select');
      // In a field with something typed, the field's own undo goes first.
      const own = typing && (event.target as HTMLInputElement).value !== '';
      if (key === 's') {
        event.preventDefault();
        setKeeping(true);
      } else if ((key === 'y' || (key === 'z' && event.shiftKey)) && !own) {
        event.preventDefault();
        redo?.();
      } else if (key === 'z' && !own) {
        event.preventDefault();
        undo?.();
      }
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [undo, redo, keeping]);
  useEffect(() => {
    // Keyboard first: the chain line is ready to type into. A screen keyboard waits until it is called.
    if (window.matchMedia('(min-width: 1024px)').matches)
      document.querySelector<HTMLInputElement>('[data-chain]')?.focus();
  }, []);
  const index = (ref: string) => drawn?.model.compiled.partIndex.get(ref) ?? -1;
  const part = circuit.parts.find(({ ref }) => ref === chosen) ?? null;
  const empty = circuit.parts.length === 0;
  const sheetHref = desk.functionId
    ? `/machines/${encodeURIComponent(desk.machine.code)}/sheet?function=${desk.functionId}`
    : null;
  const taken = (next: Circuit, words: string) => {
    change(next);
    setSaid(words);
    setTrouble(null);
  };
  const wrong = new Set(
    findings.flatMap((one) => ('part' in one && one.code !== 'noIsolation' ? [index(one.part)] : [])),
  );
  return (
    <div className="flex h-dvh flex-col max-desk:h-auto max-desk:min-h-dvh">
      <header className="flex h-14 shrink-0 items-stretch border-b-2 border-ink bg-film pl-6 max-tablet:pl-3">
        <Brand />
        <div className="flex min-w-0 flex-1 flex-col justify-center border-l border-rule px-4">
          <h1 className="truncate text-[17px] leading-5 font-[750]">{desk.name || 'New function'}</h1>
          <p className="truncate text-[15px] leading-5 text-ink2">
            {desk.machine.code} {desk.machine.name}
            {desk.functionId ? `, version ${desk.version}` : ''}
            {state.changed ? ', changed' : ''}
          </p>
        </div>
        {empty ? null : (
          <div className="flex items-center pr-3 max-tablet:hidden" role="group" aria-label="View">
            {(['schematic', 'path'] as const).map((one) => (
              <PlainKey
                key={one}
                aria-pressed={view === one}
                className="-ml-[1.5px] px-3.5! text-[16px]!"
                onClick={() => setView(one)}
              >
                {one === 'path' ? 'Path' : 'Schematic'}
              </PlainKey>
            ))}
            <PlainKey
              aria-pressed={large}
              className="-ml-[1.5px] px-3.5! text-[16px]! max-desk:hidden!"
              onClick={() => setLarge(!large)}
            >
              More room
            </PlainKey>
          </div>
        )}
        <button
          type="button"
          className="flex min-w-11 items-center justify-center border-l border-rule disabled:opacity-40"
          aria-label="Undo"
          disabled={!undo}
          onClick={() => undo?.()}
        >
          <Undo2 size={20} aria-hidden />
        </button>
        <button
          type="button"
          className="flex min-w-11 items-center justify-center disabled:opacity-40"
          aria-label="Redo"
          disabled={!redo}
          onClick={() => redo?.()}
        >
          <Redo2 size={20} aria-hidden />
        </button>
        <FilesMenu
          circuit={circuit}
          setup={setup}
          sheetHref={sheetHref}
          onTaken={taken}
          onTrouble={(words) => {
            setTrouble(words);
            setSaid(null);
          }}
        />
        <MainKey className="h-full px-6!" disabled={empty} onClick={() => setKeeping(true)}>
          Keep it
        </MainKey>
      </header>
      <main className="flex min-h-0 flex-1 flex-col">
        <section
          aria-label="The drawing"
          data-drawing
          className="relative min-h-[260px] flex-[5] max-desk:h-[46dvh] max-desk:flex-none"
        >
          {empty ? (
            <div className="h-full bg-sheet px-6 py-8">
              <p className="text-[19px] font-[650]">An empty sheet.</p>
              <p className="mt-2 max-w-[720px] text-[17px] text-ink2">
                Type a run from its supply to ground in the line below, as you would say it: battery 12.6,
                fuse 10, wire, seat switch, plug X31, coil 7.4, plug X31, wire, ground. Parts of this machine
                go by their reference.
              </p>
            </div>
          ) : view === 'path' && drawn ? (
            <DrawnPath model={drawn.model} />
          ) : drawn ? (
            <PanZoom width={drawn.schematic.width} height={drawn.schematic.height} label="Schematic">
              <SchematicFigure
                schematic={drawn.schematic}
                layers={{
                  ...(points ? { points } : {}),
                  ...(tried ?? {}),
                  chosen: chosen ? index(chosen) : null,
                  wrong,
                  changed: new Set(sheet === 'Versions' ? marked.map(index) : []),
                }}
                onPart={(at) => {
                  setChosen(drawn.model.compiled.parts[at]!.part.ref);
                  setSheet('Parts');
                }}
                onNode={(node) => put({ circuit, at: drawn.model.compiled.nodeNames[node]! })}
              />
            </PanZoom>
          ) : (
            <p className="h-full bg-sheet px-6 py-8 text-[17px]">{drawTrouble ? '' : 'Laying it out.'}</p>
          )}
          {drawTrouble && !empty ? (
            <div className="absolute inset-x-6 bottom-2">
              <Trouble>{drawTrouble}.</Trouble>
            </div>
          ) : null}
        </section>
        <div
          hidden={large}
          className="grid min-h-0 flex-[4] gap-x-6 overflow-hidden border-t-2 border-ink bg-film px-6 max-desk:flex-none max-desk:grid-cols-1 max-desk:overflow-visible max-tablet:px-3 desk:grid-cols-[400px_minmax(0,1fr)] [&[hidden]]:hidden"
        >
          <section aria-labelledby="checks" className="flex min-h-0 flex-col pb-2">
            <Heading id="checks" aside={findings.length === 0 ? '' : `${findings.length} to look at`}>
              Checks
            </Heading>
            <div className="min-h-0 flex-1 overflow-y-auto">
              {state.found ? (
                <div className="flex flex-wrap items-center gap-x-3 border-b-[1.5px] border-rule py-2">
                  <span className="flex-1">Kept on this device from before, not yet in the library.</span>
                  <PlainKey onClick={state.forget}>Begin again</PlainKey>
                </div>
              ) : null}
              {trouble ? <Trouble>{trouble}</Trouble> : null}
              {said ? (
                <p role="status" className="py-2 text-verdi">
                  {said}
                </p>
              ) : null}
              {findings.length === 0 && !trouble ? (
                <Nothing>
                  {empty
                    ? 'Nothing is drawn yet.'
                    : 'Nothing is wrong or missing. It can be diagnosed as it stands.'}
                </Nothing>
              ) : null}
              <ul>
                {findings.map((finding) => {
                  const { text, mend } = findingWords(circuit.controls, finding);
                  const mended = mend ? mendCircuit(circuit, finding) : null;
                  return (
                    <li
                      key={JSON.stringify(finding)}
                      data-finding={finding.code}
                      className="flex min-h-[52px] flex-wrap items-center gap-x-3 gap-y-1 border-b-[1.5px] border-rule py-1.5"
                    >
                      <span className="min-w-[180px] flex-1 text-[16px] leading-5">{text}</span>
                      {mend && mended ? (
                        <PlainKey className="px-3! text-[15.5px]!" onClick={() => change(mended)}>
                          {mend}
                        </PlainKey>
                      ) : null}
                    </li>
                  );
                })}
              </ul>
            </div>
          </section>
          <section aria-label={sheet} className="flex min-h-0 flex-col pb-2">
            <div className="flex min-h-11 items-end border-b-2 border-ink">
              <div role="tablist" aria-label="Below the drawing" className="flex gap-x-1">
                {SHEETS.map((one) => (
                  <button
                    key={one}
                    type="button"
                    role="tab"
                    aria-selected={sheet === one}
                    className="min-h-11 px-4 text-[17px] font-[650] whitespace-nowrap text-ink2 max-tablet:px-2 aria-selected:bg-sheet aria-selected:font-[780] aria-selected:text-ink"
                    onClick={() => setSheet(one)}
                  >
                    {one}
                  </button>
                ))}
              </div>
              <label className="ml-auto flex min-w-0 items-center gap-2 pb-1 text-[15.5px]">
                <span className="max-tablet:sr-only">Part</span>
                <select
                  className="fig min-h-9 max-w-[220px] min-w-0 border-[1.5px] max-tablet:max-w-[110px] border-edge bg-sheet px-2"
                  value={chosen ?? ''}
                  onChange={(event) => {
                    setChosen(event.target.value || null);
                    setSheet('Parts');
                  }}
                >
                  <option value="">all</option>
                  {circuit.parts.map(({ ref, label }) => (
                    <option key={ref} value={ref}>
                      {ref} {label ?? ''}
                    </option>
                  ))}
                </select>
              </label>
            </div>
            <div className="min-h-0 flex-1 overflow-y-auto">
              {sheet === 'Try it' ? (
                <TryPanel
                  state={state}
                  setup={setup}
                  onSetup={setSetup}
                  chatters={tried?.chatters ?? false}
                  blown={tried?.blown ?? []}
                />
              ) : sheet === 'Versions' ? (
                <VersionsPanel
                  functionId={desk.functionId}
                  versions={desk.versions}
                  circuit={circuit}
                  onBack={change}
                  onChanged={setMarked}
                />
              ) : part ? (
                <PartForm
                  part={part}
                  state={state}
                  known={known}
                  sharedWith={desk.siblings
                    .filter((sibling) => sharedParts(circuit, sibling.circuit).includes(part.ref))
                    .map(({ name }) => name)}
                  onChosen={setChosen}
                />
              ) : (
                <ul aria-label="Parts of the drawing">
                  {circuit.parts.map(({ ref, kind, label }) => (
                    <li key={ref} className="border-b-[1.5px] border-rule">
                      <button
                        type="button"
                        className="flex min-h-11 w-full items-center gap-4 text-left"
                        onClick={() => setChosen(ref)}
                      >
                        <span className="fig-bold w-24 truncate">{ref}</span>
                        <span className="min-w-0 flex-1 truncate">{label ?? KIND_NAMES[kind]}</span>
                        <span className="text-[15.5px] text-ink2">{label ? KIND_NAMES[kind] : ''}</span>
                      </button>
                    </li>
                  ))}
                </ul>
              )}
            </div>
          </section>
        </div>
        <ChainLine drawing={drawing} known={known} onDrawing={put} />
      </main>
      <FieldLists circuit={circuit} />
      <KeepDialog
        key={`${desk.version}`}
        open={keeping}
        onOpen={setKeeping}
        desk={desk}
        basedOn={desk.version}
        circuit={circuit}
        onKept={(functionId, version) => {
          state.kept();
          setKeeping(false);
          setSaid(`Kept as version ${version}.`);
          router.push(`/machines/${encodeURIComponent(desk.machine.code)}/draw?function=${functionId}`);
          router.refresh();
        }}
      />
    </div>
  );
}
