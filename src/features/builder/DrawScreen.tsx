'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { checkCircuit } from '@/core/draw/checkCircuit';
import type { Circuit, Setup } from '@/core/circuit/schema';
import { sharedParts } from '@/core/circuit/joinCircuits';
import { ChainLine } from './ChainLine';
import { DrawChecks } from './DrawChecks';
import { DrawHead, type View } from './DrawHead';
import { DrawSheets, PartList, type Sheet } from './DrawSheets';
import { DrawingFrame } from './DrawingFrame';
import { FilesMenu } from './FilesMenu';
import { KeepDialog } from './KeepDialog';
import { FieldLists, PartForm } from './PartForm';
import { knownOf } from './knownOf';
import type { OpenDrawing } from './schema';
import { TryPanel } from './TryPanel';
import { useUndoKeys } from '@/ui/useUndoKeys';
import { useDrawing } from './useDrawing';
import { useSchematic } from './useSchematic';
import { useTried } from './useTried';
import { VersionsPanel } from './VersionsPanel';

/** A function drawn from nothing: typed as chains, checked as it grows, tried at once, kept in the machine's library. */
export function DrawScreen({ desk }: { desk: OpenDrawing }) {
  const router = useRouter();
  const state = useDrawing(desk.circuit, `spiraxis-drawing:${desk.machine.code}:${desk.functionId ?? 'new'}`);
  const { drawing, put, change, undo, redo } = state;
  const { circuit } = drawing;
  const [view, setView] = useState<View>('schematic');
  const [sheet, setSheet] = useState<Sheet>('Parts');
  const [chosen, setChosen] = useState<string | null>(null);
  const [setup, setSetup] = useState<Setup>({});
  const [keeping, setKeeping] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [large, setLarge] = useState(false);
  const [marked, setMarked] = useState<readonly string[]>([]);
  const known = useMemo(() => knownOf(desk.siblings.map((one) => one.circuit)), [desk.siblings]);
  const findings = useMemo(() => checkCircuit(circuit), [circuit]);
  const schematic = useSchematic(circuit);
  const tried = useTried(sheet === 'Try it' ? (schematic.drawn?.model ?? null) : null, setup, desk.gaugeUnit);
  useUndoKeys({ enabled: !keeping, onKeep: () => setKeeping(true), undo, redo });
  useEffect(() => {
    // Keyboard first: the chain line is ready to type into. A screen keyboard waits until it is called.
    if (window.matchMedia('(min-width: 1024px)').matches)
      document.querySelector<HTMLInputElement>('[data-chain]')?.focus();
  }, []);
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
  const choose = (ref: string | null) => {
    setChosen(ref);
    setSheet('Parts');
  };
  return (
    <div className="flex h-dvh flex-col max-desk:h-auto max-desk:min-h-dvh">
      <DrawHead
        title={desk.name || 'New function'}
        under={[
          `${desk.machine.code} ${desk.machine.name}`,
          desk.functionId && `version ${desk.version}`,
          state.changed && 'changed',
        ]
          .filter(Boolean)
          .join(', ')}
        empty={empty}
        view={view}
        onView={setView}
        large={large}
        onLarge={setLarge}
        undo={undo}
        redo={redo}
        onKeep={() => setKeeping(true)}
      >
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
      </DrawHead>
      <main className="flex min-h-0 flex-1 flex-col">
        <DrawingFrame
          empty={empty}
          view={view}
          schematic={schematic}
          gaugeUnit={desk.gaugeUnit}
          tried={tried}
          chosen={chosen}
          wrong={findings.flatMap((one) => ('part' in one && one.code !== 'noIsolation' ? [one.part] : []))}
          changed={sheet === 'Versions' ? marked : []}
          onPart={choose}
          onNode={(at) => put({ circuit, at })}
        />
        <div
          hidden={large}
          className="grid min-h-0 flex-[4] gap-x-6 overflow-hidden border-t-2 border-ink bg-film px-6 max-desk:flex-none max-desk:grid-cols-1 max-desk:overflow-visible max-tablet:px-3 desk:grid-cols-[400px_minmax(0,1fr)] [&[hidden]]:hidden"
        >
          <DrawChecks
            circuit={circuit}
            findings={findings}
            trouble={trouble}
            said={said}
            onForget={state.found ? state.forget : null}
            onMend={change}
          />
          <DrawSheets
            circuit={circuit}
            sheet={sheet}
            onSheet={setSheet}
            chosen={chosen}
            onChosen={choose}
            panels={{
              Parts: part ? (
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
                <PartList circuit={circuit} onChosen={setChosen} />
              ),
              'Try it': (
                <TryPanel
                  state={state}
                  setup={setup}
                  onSetup={setSetup}
                  chatters={tried?.chatters ?? false}
                  blown={tried?.blown ?? []}
                />
              ),
              Versions: (
                <VersionsPanel
                  functionId={desk.functionId}
                  versions={desk.versions}
                  circuit={circuit}
                  onBack={change}
                  onChanged={setMarked}
                />
              ),
            }}
          />
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
