/** Whether this is the demonstration, where everybody is invented and signs in with one press. */
export const isDemo = () => process.env.SPIRAXIS_DEMO === '1';
