/** The ways in which one message is looked at. */
export const LOOKS = ['rich', 'plain', 'narrow', 'dark', 'headers'] as const;
export type LookAs = (typeof LOOKS)[number];
export const LOOK_WORDS: Readonly<Record<LookAs, string>> = {
  rich: 'rich',
  plain: 'plain text',
  narrow: '360 px',
  dark: 'dark',
  headers: 'headers',
};

/** The two parts of a message whose words are traced. */
export type Part = 'subject' | 'body';
