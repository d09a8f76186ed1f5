'use client';

/** A page that could not be made, usually because the database does not answer. */
export function ShedSilent({ again }: { again: () => void }) {
  return (
    <main className="px-6 py-16">
      <h1 className="text-[23px] font-[800]">The shed does not answer</h1>
      <p className="mt-3 max-w-[60ch]">
        The server or its database is down, or it failed at this page; its log says which. Entries made on
        this device are kept and will be sent. Check that the start command is still running.
      </p>
      <button type="button" onClick={again} className="mt-6 min-h-11 bg-pencil px-6 font-[750] text-sheet">
        Try again
      </button>
    </main>
  );
}
