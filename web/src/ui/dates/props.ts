/** What the fields for a day and for a moment have in common. */
export interface DateFieldProps {
  /** ISO 8601 without a zone; empty for none. */
  modelValue: string;
  /** How it is read and shown; the reader's own by default. */
  locale?: string | undefined;
  /** Its name, where no label stands beside it. */
  label?: string;
  labelledBy?: string | undefined;
  describedBy?: string | undefined;
  invalid?: boolean;
  size?: 'small' | 'large';
  /** Hands on what cannot be understood as well, to a place that judges it itself. */
  raw?: boolean;
}
