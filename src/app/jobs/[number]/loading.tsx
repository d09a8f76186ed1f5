/** While a job is read from the database: the four bands, empty. */
export default function Loading() {
  return (
    <div className="flex h-dvh flex-col" aria-busy aria-label="Opening the job">
      <div className="h-14 border-b-2 border-ink" />
      <div className="h-[340px] bg-sheet p-8 text-ink2">Opening the job.</div>
      <div className="flex-1 border-t-2 border-ink" />
      <div className="h-[88px] border-t-2 border-ink bg-well" />
    </div>
  );
}
