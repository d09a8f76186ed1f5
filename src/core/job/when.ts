/** When a fault shows itself. */
export const WHEN = ['atOnce', 'onCommand', 'afterMinutes', 'hot', 'wet', 'bumps', 'comesAndGoes'] as const;
