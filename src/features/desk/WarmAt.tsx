import { FIELD, Trouble } from '@/ui/sheet';

/** How warm a winding or its insulation is, where somebody took it: what it reads is then held against 20 °C. */
export function WarmAt({
  what,
  typed,
  wrong,
  onType,
}: {
  what: 'Winding' | 'Insulation';
  typed: string;
  wrong: boolean;
  onType: (typed: string) => void;
}) {
  return (
    <div className="pb-2">
      <label className="flex flex-wrap items-center gap-2 text-[16px]">
        {what} at
        <input
          className={`${FIELD} fig w-[92px]!`}
          inputMode="decimal"
          placeholder="°C"
          value={typed}
          aria-invalid={wrong}
          onChange={(event) => onType(event.target.value)}
        />
        <span className="text-[15px] text-ink2">empty where nobody took it</span>
      </label>
      {wrong ? (
        <Trouble>
          “{typed.trim()}” is no temperature that a {what.toLowerCase()} has; type degrees Celsius, as 23, or
          as 74 °F.
        </Trouble>
      ) : null}
    </div>
  );
}
