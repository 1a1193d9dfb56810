/** What a message is rendered with. */
export interface Filling {
  readonly recipient: Readonly<Record<string, unknown>>;
  readonly sender: Readonly<Record<string, unknown>>;
  readonly answers: Readonly<Record<string, unknown>>;
}
