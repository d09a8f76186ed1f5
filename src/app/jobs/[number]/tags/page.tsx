import { notFound } from 'next/navigation';
import { page, titled } from '@/features/gate/page';
import { siteMoment, siteTime } from '@/core/units/siteTime';
import { tagSheet } from '@/features/handover/server';
import { Label, OnlyHere } from '@/features/labels/Label';
import { QrCode } from '@/features/labels/QrCode';
import { labelOrigin } from '@/features/labels/server';
import { ENERGY_WORDS } from '@/words/en/energies';
import { PageHead } from '@/ui/PageHead';
import { PrintKey } from '@/ui/PrintKey';
import { DEFERENCE } from '@/ui/sheet';

interface Props {
  params: Promise<{ number: string }>;
}

export const generateMetadata = titled<Props>(async ({ params }) => {
  return { title: `Tags of job ${(await params).number}` };
});

/** One tag for each lock on each energy, to cut out and hang on the lock. */
export default page<Props>('look', async function TagPage({ params }) {
  const sheet = await tagSheet((await params).number);
  if (!sheet) notFound();
  const { job, plan, locks, fixes, timeZone } = sheet;
  // One for each lock that is on, and an empty one for each point that has none yet.
  const tags = plan.flatMap((point) =>
    (locks.get(point.point) ?? [undefined]).map((lock) => ({ point, lock })),
  );
  const origin = await labelOrigin();
  return (
    <div className="min-h-dvh bg-sheet">
      <div className="print:hidden">
        <PageHead title={`Tag sheet, job ${job.number}`} under={`${job.machineCode} ${job.machineName}`}>
          <PrintKey />
        </PageHead>
      </div>
      {origin.onlyHere ? <OnlyHere /> : null}
      <main className="grid grid-cols-2 gap-5 p-6 max-tablet:grid-cols-1 print:p-0">
        {tags.map(({ point: { point, energy, label, place }, lock: entry }) => {
          const words = ENERGY_WORDS[energy];
          return (
            <section
              key={`${point} ${entry?.id ?? ''}`}
              className="break-inside-avoid border-2 border-ink p-4"
              aria-label={`Tag ${label}`}
            >
              <div className="flex gap-3">
                <div className="min-w-0 flex-1">
                  <p className="text-[24px] font-[800]">Do not operate</p>
                  <p className="text-[19px] font-[700]">
                    {words.name}: {label}
                  </p>
                  <p>{[place, `${job.machineCode}, job ${job.number}`].filter(Boolean).join(', ')}</p>
                </div>
                <QrCode
                  address={`${origin.address}/jobs/${job.number}`}
                  label={`Code that opens job ${job.number}`}
                />
              </div>
              <p className="mt-1 font-[650]">{words.say}</p>
              <dl className="mt-2 grid grid-cols-[96px_1fr] gap-y-2">
                {[
                  ['Lock', entry?.body.lock],
                  ['Tag', entry?.body.tag],
                  ['Put on by', entry?.person],
                  ['When', entry && siteMoment(entry.at, timeZone)],
                ].map(([name, value]) => (
                  <div key={name} className="contents">
                    <dt className="text-ink2">{name}</dt>
                    <dd className="fig min-h-6 border-b border-edge">{value ?? ''}</dd>
                  </div>
                ))}
              </dl>
              <p className="mt-3 text-[15px] text-ink2">
                Only the person named takes this lock off. {DEFERENCE}
              </p>
            </section>
          );
        })}
        {fixes.length > 0 ? (
          <ul className="contents" aria-label="Labels of fitted parts">
            {fixes.map(({ id, at, person, body }) => (
              <Label
                key={id}
                title={body.part}
                lines={[
                  `fitted ${body.dated || siteTime(at, timeZone).day}, ${person}`,
                  [body.spare, body.serial].filter(Boolean).join(', '),
                  `${job.machineCode}, job ${job.number}`,
                ]}
                address={`${origin.address}/jobs/${job.number}`}
              />
            ))}
          </ul>
        ) : null}
      </main>
    </div>
  );
});
