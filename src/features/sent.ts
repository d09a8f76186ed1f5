/** Said where an action was not answered: the server is away, or it could not even read what it was sent. */
const SILENT: { trouble: string } = {
  trouble: 'The server does not answer. What was typed stands here; try again.',
};

/**
 * What a page wished of the server, with what came of it; `instead` where it was not answered. An action that is not answered rejects, and what
 * rejects while a form is sent takes the whole page down with what was typed in it: every call of an action goes through here, and lint sees to it.
 */
export function sent<R, S extends { trouble: string } = { trouble: string }>(
  answer: Promise<R>,
  instead: S = SILENT as S,
): Promise<R | S> {
  return answer.catch(() => instead);
}
