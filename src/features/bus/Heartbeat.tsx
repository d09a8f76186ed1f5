import type { BusReport } from '@/core/codes/busWatch';

/** One line: whether the bus is heard, how much came, and who speaks. A lost bus says so and why. */
export function Heartbeat({ bus }: { bus: BusReport }) {
  if (bus.lost !== null) {
    return (
      <p
        role="status"
        className="my-2 flex items-center gap-3 border-l-[6px] border-stamp bg-stamp-t px-4 py-2.5 text-stamp"
        data-testid="heartbeat"
        data-lost="true"
      >
        <span>
          <strong>Bus lost:</strong> {bus.lost}. It is called again by itself; what stood here may have
          changed.
        </span>
      </p>
    );
  }
  return (
    <p
      role="status"
      className="my-2 flex min-h-11 items-center gap-3 bg-verdi-t px-4 text-[16px]"
      data-testid="heartbeat"
      data-lost="false"
    >
      <svg width="44" height="20" viewBox="0 0 44 20" aria-hidden>
        {/* Each frame that came moves the beat on by one. */}
        {[0, 1, 2, 3].map((at) => (
          <circle key={at} cx={6 + at * 10} cy={10} r={bus.frames % 4 === at ? 5 : 2.5} fill="var(--verdi)" />
        ))}
      </svg>
      <span>
        <strong className="font-[750]">Heard.</strong> <span className="fig">{bus.frames}</span> frames
        {bus.senders.length > 0 ? (
          <>
            , from {bus.senders.length === 1 ? 'address' : 'addresses'}{' '}
            <span className="fig">{bus.senders.join(', ')}</span>
          </>
        ) : null}
      </span>
    </p>
  );
}
