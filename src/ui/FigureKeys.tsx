import { Delete } from 'lucide-react';

/** Large keys for a figure, for gloves: what a field of figures takes, and the step back. */
export function FigureKeys({
  keys,
  onKey,
  onErase,
}: {
  keys: readonly string[];
  onKey: (key: string) => void;
  onErase: () => void;
}) {
  return (
    <div
      className="grid w-full grid-cols-6 border-t border-l border-edge"
      role="group"
      aria-label="Large keys"
    >
      {keys.map((key) => (
        <LargeKey key={key} label={key} onPress={() => onKey(key)}>
          {key === '-' ? '−' : key}
        </LargeKey>
      ))}
      <LargeKey label="erase" onPress={onErase}>
        <Delete size={22} aria-hidden />
      </LargeKey>
    </div>
  );
}

function LargeKey({
  children,
  label,
  onPress,
}: {
  children: React.ReactNode;
  label: string;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      tabIndex={-1}
      onClick={onPress}
      className="fig-bold flex min-h-[53px] items-center justify-center border-r border-b border-edge bg-well text-[24px]"
    >
      {children}
    </button>
  );
}
