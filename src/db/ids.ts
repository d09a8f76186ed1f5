/** An id as this server gives them. Text that is none names nothing, and a column of plain letters is not asked for it. */
export function isId(text: string): boolean {
  return /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(text);
}
