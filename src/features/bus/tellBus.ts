import type { Setup } from '@/core/circuit/schema';
import type { BusQuestion } from '@/core/codes/requests';
import { askStatus } from '../askServer';

/** Tells the server's bus something. Gives one line of trouble, or null; `away` where the server does not answer. */
async function tellBus(machineCode: string, body: object, away: string): Promise<string | null> {
  try {
    const { answer } = await askStatus<{ trouble?: string | null; message?: string }>(
      `/api/machines/${encodeURIComponent(machineCode)}/bus`,
      {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      },
    );
    return answer?.trouble === undefined ? (answer?.message ?? 'The server failed at this.') : answer.trouble;
  } catch {
    return away;
  }
}

/** Asks the simulated machine to stand in a set-up. Gives one line of trouble, or null. */
export function handleMachine(
  machineCode: string,
  functionName: string,
  setup: Setup,
): Promise<string | null> {
  const away = 'The server does not answer; the simulated machine stands as it was.';
  return tellBus(machineCode, { function: functionName, setup }, away);
}

/** Has the server's bus asked a question. Gives one line of trouble, or null where it went out. */
export function askBus(machineCode: string, question: BusQuestion): Promise<string | null> {
  return tellBus(machineCode, { ask: question }, 'The server does not answer: nothing was asked.');
}
