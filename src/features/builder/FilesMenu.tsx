'use client';

import { DropdownMenu } from 'radix-ui';
import { InputError } from '@/core/circuit/inputError';
import { CircuitModel } from '@/core/circuit/model';
import { parseCircuit } from '@/core/circuit/parse';
import type { Circuit, Setup } from '@/core/circuit/schema';
import { readSpice, writeSpice } from '@/formats/spice';
import { readWireList, writeWireList } from '@/formats/wireList';
import { saveSvg } from '@/ui/saveSvg';
import { saveText } from '@/ui/saveText';
import { useFilePicker } from '@/ui/useFilePicker';

const ITEM =
  'flex min-h-11 cursor-pointer items-center px-4 text-[16.5px] outline-none data-[highlighted]:bg-pencil-t';

/** The open formats: out as files, in from one. A bad file is refused by line and field, and changes nothing. */
export function FilesMenu({
  circuit,
  setup,
  sheetHref,
  onTaken,
  onTrouble,
}: {
  circuit: Circuit;
  setup: Setup;
  sheetHref: string | null;
  onTaken: (circuit: Circuit, said: string) => void;
  onTrouble: (trouble: string) => void;
}) {
  const stem = (circuit.name || 'circuit').toLowerCase().replace(/[^a-z0-9]+/g, '-');
  const guarded = (work: () => void) => {
    try {
      work();
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      onTrouble(`${error.message}.`);
    }
  };
  const take = async (file: File) => {
    const text = await file.text();
    guarded(() => {
      if (/\.csv$/i.test(file.name)) {
        const { circuit: next, added, changed } = readWireList(text, circuit);
        onTaken(next, `${file.name}: ${added.length} added, ${changed.length} changed.`);
      } else if (/\.(cir|net|sp|spice)$/i.test(file.name)) {
        const next = readSpice(text, circuit.name || file.name.replace(/\.\w+$/, ''));
        onTaken(next, `${file.name}: ${next.parts.length} parts.`);
      } else {
        let data: unknown;
        try {
          data = JSON.parse(text);
        } catch (error) {
          throw new InputError(
            file.name,
            `not JSON (${error instanceof Error ? error.message : ''}); a circuit file, a wiring list (.csv) or a netlist (.cir) will do`,
          );
        }
        const next = parseCircuit(data);
        new CircuitModel(next);
        onTaken(next, `${file.name}: ${next.parts.length} parts.`);
      }
    });
  };
  const picker = useFilePicker({
    label: 'Circuit file',
    accept: '.json,.csv,.cir,.net,.sp,.spice',
    onFile: (file) => void take(file),
  });
  return (
    <>
      {picker.input}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="min-h-11 border-l border-rule px-4 text-[16.5px] font-[650]">
          Files
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            className="z-40 min-w-[250px] border-2 border-ink bg-sheet text-ink"
          >
            <DropdownMenu.Item className={ITEM} onSelect={() => picker.choose()}>
              Take in a file
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="h-[1.5px] bg-rule" />
            <DropdownMenu.Item
              className={ITEM}
              onSelect={() =>
                saveText(`${stem}.circuit.json`, 'application/json', `${JSON.stringify(circuit, null, 2)}\n`)
              }
            >
              Circuit file
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={ITEM}
              onSelect={() => saveText(`${stem}-wires.csv`, 'text/csv', writeWireList(circuit))}
            >
              Wiring list (CSV)
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={ITEM}
              onSelect={() =>
                guarded(() =>
                  saveText(`${stem}.cir`, 'text/plain', writeSpice(new CircuitModel(circuit), setup)),
                )
              }
            >
              Netlist as it stands (SPICE)
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={ITEM}
              onSelect={() => {
                const figure = document.querySelector<SVGSVGElement>('[data-drawing] svg.figure');
                if (figure) saveSvg(figure, `${stem}.svg`);
                else onTrouble('Nothing is drawn yet that could be saved.');
              }}
            >
              What is on the screen (SVG)
            </DropdownMenu.Item>
            {sheetHref ? (
              <DropdownMenu.Item className={ITEM} asChild>
                <a href={sheetHref}>Sheet to print</a>
              </DropdownMenu.Item>
            ) : null}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </>
  );
}
