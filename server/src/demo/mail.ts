/** A mail of the demo, as its file holds it. */
export interface DemoMail {
  readonly id: string;
  /** The key of whom it is for. */
  readonly to: string;
  readonly cc?: string;
  readonly from?: string;
  readonly subject?: string;
  readonly text?: string;
  readonly days: number;
  /** On the wall clock of UTC. */
  readonly at: string;
  readonly answers?: string;
  readonly raw?: string;
  /** Header fields besides the usual. */
  readonly headers?: Readonly<Record<string, string>>;
}
