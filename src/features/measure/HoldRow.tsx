import { DEFERENCE, HoldSign } from '@/ui/sheet';
import type { useHold } from './useHold';

/** What must be clear before a reading is taken, with its tick where one is asked for. */
export function HoldRow({ hold }: { hold: Pick<ReturnType<typeof useHold>, 'words' | 'held' | 'tick'> }) {
  return (
    <div className="flex min-h-11 items-center gap-3 bg-well px-4 py-2" data-testid="sheet-hold">
      <HoldSign />
      <p className="min-w-0 flex-1 text-[15.5px] leading-[19px] font-[650]">
        {hold.words.text} <span className="font-[550] text-ink2">{DEFERENCE}</span>
      </p>
      {hold.words.mustTick ? (
        <label className="flex min-h-11 items-center gap-2 font-[700]">
          <input
            type="checkbox"
            data-hold
            className="size-6 accent-pencil"
            checked={hold.held}
            onChange={(event) => hold.tick(event.target.checked)}
          />
          Clear
        </label>
      ) : null}
    </div>
  );
}
