'use client';

import { useRef, type ReactNode } from 'react';

/** A file chosen by a key of the screen's own: the hidden input to put beside it, and what the key calls. */
export function useFilePicker({
  label,
  accept,
  onFile,
}: {
  label: string;
  accept: string;
  onFile: (file: File) => unknown;
}): { input: ReactNode; choose: () => void } {
  const picker = useRef<HTMLInputElement>(null);
  return {
    choose: () => picker.current?.click(),
    input: (
      <input
        ref={picker}
        type="file"
        accept={accept}
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) onFile(file);
          // The same file may be chosen again once it is mended.
          event.target.value = '';
        }}
      />
    ),
  };
}
