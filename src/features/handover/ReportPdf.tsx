import { join } from 'node:path';
import {
  Document,
  Font,
  Line,
  Page,
  Rect,
  renderToBuffer,
  StyleSheet,
  Svg,
  Text,
  View,
} from '@react-pdf/renderer';
import { NOTICE, type Report, type ReportLine } from './report';

type Style = NonNullable<Parameters<typeof StyleSheet.create>[0][string]>;

const FONTS = join(process.cwd(), 'node_modules', '@fontsource', 'sofia-sans-semi-condensed', 'files');
const font = (part: string, weight: number) =>
  join(FONTS, `sofia-sans-semi-condensed-${part}-${weight}-normal.woff`);
const INK = '#12201b';
const INKS = { good: '#0b554d', bad: '#8f1030', left: '#75330a' } as const;
const COPPER = '#98460f';
/** Letters that only the Greek file has. */
const GREEK = /([\u0370-\u03ff\u2126]+)/;

Font.register({
  family: 'Sofia',
  fonts: [
    { src: font('latin', 400), fontWeight: 400 },
    { src: font('latin', 700), fontWeight: 700 },
  ],
});
Font.register({
  family: 'Sofia Greek',
  fonts: [
    { src: font('greek', 400), fontWeight: 400 },
    { src: font('greek', 700), fontWeight: 700 },
  ],
});
Font.registerHyphenationCallback((word) => [word]);

const styles = StyleSheet.create({
  page: { padding: 42, paddingBottom: 64, fontFamily: 'Sofia', fontSize: 10.5, color: INK, lineHeight: 1.3 },
  head: { fontSize: 19, fontWeight: 700, lineHeight: 1.15 },
  section: {
    marginTop: 12,
    borderBottom: `1.4pt solid ${INK}`,
    paddingBottom: 2,
    fontSize: 12.5,
    fontWeight: 700,
  },
  row: { flexDirection: 'row', borderBottom: '0.6pt solid #c3d0c7', paddingVertical: 2.5, gap: 12 },
  foot: { position: 'absolute', left: 42, right: 42, bottom: 26, fontSize: 8.5, color: '#3b4b44' },
});

/** Text with the ohm sign and its kin in the font that has them. */
function Words({ children, style }: { children: string; style?: Style }) {
  return (
    <Text style={style ?? {}}>
      {children.split(GREEK).map((piece, at) =>
        at % 2 === 1 ? (
          <Text key={at} style={{ fontFamily: 'Sofia Greek' }}>
            {piece.replaceAll('\u2126', '\u03a9')}
          </Text>
        ) : (
          piece
        ),
      )}
    </Text>
  );
}

function Section({ title, lines, empty }: { title: string; lines: readonly ReportLine[]; empty?: string }) {
  if (lines.length === 0 && !empty) return null;
  return (
    <View>
      <Text style={styles.section} minPresenceAhead={40}>
        {title}
      </Text>
      {lines.length === 0 ? <Text style={{ paddingTop: 3 }}>{empty}</Text> : null}
      {lines.map(({ text, beside, tone }, at) => (
        <View key={at} style={styles.row} wrap={false}>
          <Words style={{ flex: 1 }}>{text}</Words>
          {beside ? (
            <Words style={{ width: 170, textAlign: 'right', color: tone ? INKS[tone] : '#3b4b44' }}>
              {beside}
            </Words>
          ) : null}
        </View>
      ))}
    </View>
  );
}

/** The path drawn flat: what was spared, what was proved bad, where the turns ended. */
function PathPicture({ path }: { path: Report['path'] }) {
  const width = 511;
  const room = width / Math.max(path.length, 1);
  return (
    <View style={{ marginTop: 6 }}>
      <Svg width={width} height={34} viewBox={`0 0 ${width} 34`}>
        {path.flatMap(({ state, turns, load }, at) => {
          const [x1, x2] = [at * room, (at + 1) * room];
          const ink = state === 'bad' ? INKS.bad : state === 'doubt' ? INK : INKS.good;
          const middle = (x1 + x2) / 2;
          return [
            <Line
              key={`l${at}`}
              x1={x1 + 3}
              x2={x2 - 3}
              y1={22}
              y2={22}
              stroke={ink}
              strokeWidth={state === 'spared' ? 2.6 : 1.8}
              {...(state === 'held' ? { strokeDasharray: '5 3' } : {})}
            />,
            ...(load
              ? [
                  <Rect
                    key={`r${at}`}
                    x={middle - 8}
                    y={16}
                    width={16}
                    height={12}
                    fill="#fff"
                    stroke={ink}
                    strokeWidth={1.6}
                  />,
                ]
              : []),
            ...Array.from({ length: turns }, (_, k) => {
              const x = middle + (k - (turns - 1) / 2) * Math.min(3.4, (room - 10) / Math.max(turns, 1));
              return (
                <Line
                  key={`t${at}-${k}`}
                  x1={x - 1}
                  x2={x + 1}
                  y1={15}
                  y2={4}
                  stroke={COPPER}
                  strokeWidth={1.4}
                />
              );
            }),
          ];
        })}
      </Svg>
      <View style={{ flexDirection: 'row' }}>
        {path.map(({ name, state }, at) => (
          <Text
            key={at}
            style={{
              width: room,
              textAlign: 'center',
              fontSize: 8,
              fontWeight: state === 'bad' ? 700 : 400,
              color: state === 'bad' ? INKS.bad : state === 'doubt' ? INK : INKS.good,
            }}
          >
            {name}
            {state === 'bad' ? ' BAD' : ''}
          </Text>
        ))}
      </View>
    </View>
  );
}

function ReportDocument({ report }: { report: Report }) {
  const { verdict } = report;
  return (
    <Document title={`Job ${report.number} ${report.title}`} creator="Spiraxis" language="en">
      <Page size="A4" style={styles.page}>
        <Words style={styles.head}>{report.title}</Words>
        <Words style={{ color: '#3b4b44' }}>
          {`${report.machine}, ${report.function}. Job ${report.number}, ${report.person}. Opened ${report.opened}${report.closed ? `, handed over ${report.closed}` : ', not handed over'}.`}
        </Words>
        <Section title="Complaint" lines={[{ text: report.complaint }]} />
        <Section title="Codes" lines={report.codes} />
        <Text style={styles.section}>Verdict</Text>
        <Words style={{ fontSize: 13, fontWeight: 700, paddingTop: 3 }}>{verdict.headline}</Words>
        {verdict.why.map((line) => (
          <Words key={line}>{line}</Words>
        ))}
        {verdict.share ? <Text>{`Share on this part, by the readings: ${verdict.share}`}</Text> : null}
        {report.path.length > 0 ? <PathPicture path={report.path} /> : null}
        <Section title="Made safe" lines={report.madeSafe} empty="Nothing was locked or isolated." />
        <Section title="Found on the machine" lines={report.found} />
        <Section title="Evidence" lines={report.evidence} empty="No reading was taken." />
        {report.points ? (
          <Words style={{ fontSize: 9, paddingTop: 3, color: '#3b4b44' }}>{report.points}</Words>
        ) : null}
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
        <View fixed style={styles.foot}>
          <Text>{NOTICE}</Text>
          <Text
            render={({ pageNumber, totalPages }) =>
              `Spiraxis, job ${report.number}, page ${pageNumber} of ${totalPages}`
            }
          />
        </View>
      </Page>
    </Document>
  );
}

/** The report as a PDF. */
export function reportPdf(report: Report): Promise<Buffer> {
  return renderToBuffer(<ReportDocument report={report} />);
}
