/** What is read on a spare that lies on the bench: its winding, from end to end, a contact each way, a diode each way. */
export const BENCH_MEASURES = ['winding', 'through', 'closed', 'open', 'forward', 'reverse'] as const;
export type BenchMeasure = (typeof BENCH_MEASURES)[number];
