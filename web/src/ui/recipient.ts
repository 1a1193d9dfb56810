/** What a recipient is called, from whatever fields there are. */
export const nameOfRow = (row: Readonly<Record<string, unknown>>): string => {
  const word = (key: string): string => (typeof row[key] === 'string' ? row[key] : '');
  return [word('first_name'), word('last_name')].filter(Boolean).join(' ') || word('name') || word('email');
};
