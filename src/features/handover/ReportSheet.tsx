import { TurnStrokes } from '@/ui/Turns';
import { NOTICE, type Report, type ReportLine } from './report';

const TONES = { good: 'text-verdi', bad: 'text-stamp', left: 'text-copper-ink' } as const;

/** The report on the screen and on paper. */
export function ReportSheet({ report }: { report: Report }) {
  const { verdict } = report;
  return (
    <article className="mx-auto max-w-[900px] px-6 py-6 print:max-w-none print:p-0" data-testid="report">
      <h1 className="text-[27px] leading-8 font-[800]">{report.title}</h1>
      <p className="text-ink2">
        {report.machine}, {report.function}. Job {report.number}, {report.person}. Opened {report.opened}
        {report.closed ? `, handed over ${report.closed}` : ', not handed over'}.
      </p>
      <Section title="Complaint" lines={[{ text: report.complaint }]} />
      <Section title="Codes" lines={report.codes} />
      <h2 className="mt-5 border-b-2 border-ink pb-1 text-[19px] font-[780]">Verdict</h2>
      <p className="pt-2 text-[20px] font-[750]">{verdict.headline}</p>
      {verdict.why.map((line) => (
        <p key={line}>{line}</p>
      ))}
      {verdict.share ? (
        <p>
          Share on this part, by the readings: <span className="fig">{verdict.share}</span>
        </p>
      ) : null}
      <PathPicture path={report.path} />
      <Section title="Made safe" lines={report.madeSafe} empty="Nothing was locked or isolated." />
      <Section title="Found on the machine" lines={report.found} />
      <Section title="Evidence" lines={report.evidence} empty="No reading was taken." />
      {report.points ? <p className="py-1.5 text-[15.5px] text-ink2">{report.points}</p> : null}
      {report.sheets.map(({ title, found, lines }) => (
        <Section key={title} title={title} lines={[...found.map((text) => ({ text })), ...lines]} />
      ))}
      <Section title="Decision" lines={report.decision} empty="Nothing was decided." />
      <Section title="Parts and work" lines={report.parts} />
      <Section title="Put in and taken out" lines={report.putIn} />
      <Section title="Proofs" lines={report.proofs} />
      <Section title="Safety defects" lines={report.defects} />
      <Section title="Still locked or isolated" lines={report.safety} />
      {report.toDriver ? <Section title="To the driver" lines={[{ text: report.toDriver }]} /> : null}
      <Section title="Faults left" lines={report.left} empty="None known." />
      <Section title="Kept as this machine’s own values" lines={report.baselines} />
      {report.retest ? <Section title="Re-test" lines={[{ text: report.retest }]} /> : null}
      <p className="mt-6 border-t-2 border-ink pt-2 text-[15.5px] font-[650]">{NOTICE}</p>
    </article>
  );
}

function Section({ title, lines, empty }: { title: string; lines: readonly ReportLine[]; empty?: string }) {
  if (lines.length === 0 && !empty) return null;
  return (
    <section aria-label={title}>
      <h2 className="mt-5 border-b-2 border-ink pb-1 text-[19px] font-[780]">{title}</h2>
      {lines.length === 0 ? <p className="py-1.5">{empty}</p> : null}
      <ul>
        {lines.map(({ text, beside, tone }, at) => (
          <li key={at} className="flex gap-4 border-b-[1.5px] border-rule py-1.5 break-inside-avoid">
            <span className="min-w-0 flex-1 break-words">{text}</span>
            {beside ? (
              <span className={`max-w-[42%] text-right text-[15.5px] ${tone ? TONES[tone] : 'text-ink2'}`}>
                {beside}
              </span>
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  );
}

function PathPicture({ path }: { path: Report['path'] }) {
  if (path.length === 0) return null;
  const [width, axis] = [852, 34];
  const room = width / path.length;
  return (
    <svg
      viewBox={`0 0 ${width} 66`}
      className="mt-3 w-full"
      role="img"
      aria-label={path.map(({ name, state }) => `${name} ${state}`).join(', ')}
    >
      {path.map(({ name, state, turns, load }, at) => {
        const [x1, x2] = [at * room, (at + 1) * room];
        const ink = state === 'bad' ? 'var(--stamp)' : state === 'doubt' ? 'var(--ink)' : 'var(--verdi)';
        return (
          <g key={at}>
            <path
              d={`M${x1 + 4} ${axis}H${x2 - 4}`}
              stroke={ink}
              strokeWidth={state === 'spared' ? 4 : 3}
              strokeDasharray={state === 'held' ? '7 4' : undefined}
            />
            {load ? (
              <rect
                x={(x1 + x2) / 2 - 12}
                y={axis - 8}
                width={24}
                height={16}
                fill="var(--sheet)"
                stroke={ink}
                strokeWidth={2.4}
              />
            ) : null}
            <TurnStrokes
              count={turns}
              x={(x1 + x2) / 2}
              y={axis - 20}
              height={20}
              room={room - 12}
              closest={3}
            />
            <text
              x={(x1 + x2) / 2}
              y={axis + 26}
              textAnchor="middle"
              fontSize={14}
              fill={ink}
              fontWeight={700}
              className="fig"
            >
              {name}
              {state === 'bad' ? ' BAD' : ''}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
