import type { CoilAnswer } from '@/core/sheets/coil/coil';
import type { CoilOfJob } from '@/core/sheets/onCircuit/jobSheet';
import { findingWords } from '@/words/en/benchSheets';
import { Heading } from '@/ui/sheet';
import { WindingStrip } from '../bench/CoilStrip';

/** A winding of the job among its kind, and what is still open about it. */
export function CoilAmong({
  name,
  coil: { document, past },
  answer,
}: {
  name: string;
  coil: CoilOfJob;
  answer: CoilAnswer;
}) {
  const dots = (kind: 'own' | 'fleet') =>
    past[kind].map(({ ohms, atReference }) => ({ ohms, pale: !atReference }));
  const rows = {
    twins: (document.twins ?? []).map((ohms) => ({ ohms })),
    own: dots('own'),
    fleet: dots('fleet'),
  };
  const pale = [...rows.own, ...rows.fleet].some((dot) => dot.pale);
  return (
    <section aria-labelledby="among" className="pt-3" data-testid="coil-among">
      <Heading id="among">{name} among its kind</Heading>
      <WindingStrip ohms20={answer.ohms20} maker={document.maker ?? null} rows={rows} />
      {pale ? (
        <p className="text-[15px] text-ink2">
          Dashed dots: read without their temperature; shown, and not judged by.
        </p>
      ) : null}
      {document.ohms && document.ohms.length > 0
        ? answer.findings.map((found) => (
            <p key={found.code} className="text-[15.5px] leading-[19px] text-ink2">
              {findingWords(found)}
            </p>
          ))
        : null}
    </section>
  );
}
