import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { Label, OnlyHere } from '@/features/labels/Label';
import { machineLabels } from '@/features/labels/server';
import { machineAddress } from '@/ui/machineAddress';
import { PageHead } from '@/ui/PageHead';
import { PrintKey } from '@/ui/PrintKey';
import { Heading } from '@/ui/sheet';

interface Props {
  params: Promise<{ code: string }>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  return { title: `Labels of ${decodeURIComponent((await params).code)}` };
});

/** Labels of a machine, its functions and its wires, to print, cut out and stick on. */
export default page<Props>('look', async function LabelPage({ params }) {
  const labels = await machineLabels(decodeURIComponent((await params).code));
  if (!labels) notFound();
  const { machine, functions, wires, origin } = labels;
  const grid = 'grid grid-cols-3 gap-3 py-3 max-desk:grid-cols-2 max-tablet:grid-cols-1 print:grid-cols-2';
  return (
    <div className="min-h-dvh bg-sheet">
      <div className="print:hidden">
        <PageHead title={`Labels, ${machine.code}`} under={machine.name}>
          <PrintKey />
        </PageHead>
      </div>
      <main className="px-6 pb-8 max-tablet:px-3 print:p-0">
        {origin.onlyHere ? <OnlyHere /> : null}
        <section aria-labelledby="machine">
          <Heading id="machine">Machine and functions</Heading>
          <ul className={grid}>
            <Label
              title={machine.code}
              lines={[machine.name, 'drawings, codes, jobs']}
              address={`${origin.address}${machineAddress(machine.code)}`}
            />
            {functions.map(({ id, name }) => (
              <Label
                key={id}
                title={machine.code}
                lines={[<strong key="name">{name}</strong>, 'a new job on it']}
                address={`${origin.address}/new?function=${id}`}
              />
            ))}
          </ul>
        </section>
        {wires.length > 0 ? (
          <section aria-labelledby="wires">
            <Heading id="wires" aside="one for each end">
              Wire marks
            </Heading>
            <ul className="flex flex-wrap gap-2 py-3">
              {wires.flatMap(({ ref, label, ends }) =>
                ends.map((end, at) => (
                  <li
                    key={`${ref} ${at}`}
                    className="flex min-h-9 break-inside-avoid items-baseline gap-2 border-[1.5px] border-ink px-2 py-1"
                    title={label}
                  >
                    <span className="fig-bold text-[17px]">{ref}</span>
                    <span className="fig text-[15px]">{end}</span>
                  </li>
                )),
              )}
            </ul>
          </section>
        ) : null}
      </main>
    </div>
  );
});
