/** Understands times of day as people type them. */
const NAMED: Readonly<Record<string, string>> = { noon: '12:00', midday: '12:00', midnight: '00:00' };

/** The time, `14:30`, that a text means, or undefined. `9`, `9.30`, `14h30`, `0930`, `2 pm`, `2:30pm`, `noon`. */
export function understandTime(text: string): string | undefined {
  const typed = text.trim().toLowerCase();
  if (NAMED[typed]) return NAMED[typed];
  const parts =
    /^(\d{1,2})(?:\s?[:.h]\s?(\d{2}))?(?::(\d{2}))?\s?(?:h|uhr)?\s?([ap])?\.?(?:\s?m\.?)?$/.exec(typed) ??
    /^(\d{1,2})(\d{2})()\s?([ap])?\.?(?:\s?m\.?)?$/.exec(typed);
  if (!parts) return undefined;
  const [, first = '', minute = '00', second, half] = parts;
  const typedHour = Number(first);
  if (half !== undefined && (typedHour < 1 || typedHour > 12)) return undefined;
  const hour = half === undefined ? typedHour : (typedHour % 12) + (half === 'p' ? 12 : 0);
  if (hour > 23 || Number(minute) > 59 || Number(second ?? 0) > 59) return undefined;
  return `${String(hour).padStart(2, '0')}:${minute}${second && second !== '00' ? `:${second}` : ''}`;
}
