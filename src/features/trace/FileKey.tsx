'use client';

/** A key that opens a file of a trace. */
export function FileKey({ label, onFile }: { label: string; onFile: (file: File | undefined) => void }) {
  return (
    <label className="flex min-h-11 cursor-pointer items-center border-[1.5px] border-edge bg-sheet px-4 text-[16.5px] font-[650] focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-pencil">
      {label}
      <input
        type="file"
        accept=".csv,.txt,.tsv,.wav"
        className="sr-only"
        onChange={({ target }) => {
          onFile(target.files?.[0]);
          // The same file again, mended, is another one.
          target.value = '';
        }}
      />
    </label>
  );
}
