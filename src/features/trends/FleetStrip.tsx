const WIDTH = 620;
const HEIGHT = 56;
const EDGE = 12;

/** The same place on machines of the type, each by its last value, this one filled. */
export function FleetStrip({
  own,
  fleet,
  byFactors,
  label,
}: {
  own: number;
  fleet: readonly { machine: string; value: number }[];
  byFactors: boolean;
  label: string;
}) {
  const scale = byFactors ? Math.log10 : (value: number) => value;
  const values = [own, ...fleet.map(({ value }) => value)].map(scale);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const x = (value: number) =>
    high === low ? WIDTH / 2 : EDGE + ((WIDTH - 2 * EDGE) * (scale(value) - low)) / (high - low);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label={label}>
      <path d={`M0 ${HEIGHT / 2}H${WIDTH}`} stroke="var(--rule)" strokeWidth={2} />
      {fleet.map(({ machine, value }) => (
        <circle
          key={machine}
          cx={x(value)}
          cy={HEIGHT / 2}
          r={6}
          fill="var(--sheet)"
          stroke="var(--ink2)"
          strokeWidth={2}
        >
          <title>{machine}</title>
        </circle>
      ))}
      <circle cx={x(own)} cy={HEIGHT / 2} r={8} fill="var(--pencil)" />
    </svg>
  );
}
