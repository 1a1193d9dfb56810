/** The one table of keys: what is shown and what is listened for. */
export const onMac = /Mac|iPhone|iPad/.test(navigator.platform);
export const command = onMac ? '⌘' : 'Ctrl';

export const KEYS = [
  { id: 'call', keys: `${command} K`, does: 'Search line: find a template anywhere' },
  {
    id: 'insert',
    keys: 'Alt Enter',
    does: 'With words selected: make them a variable, choice or passage. With none: insert',
  },
  { id: 'digit', keys: '1 … 9', does: 'In the empty search line: open a text at hand' },
  { id: 'braces', keys: '{{', does: 'Insert, while writing' },
  { id: 'suggest', keys: 'S', does: 'In Fill, on a line that was reworded: suggest it to the owner of the text' },
  { id: 'blank', keys: 'F2', does: 'Next blank; with Shift the one before' },
  { id: 'finding', keys: 'F8', does: 'Next finding or difference; with Shift the one before' },
  { id: 'recipient', keys: 'F9', does: 'Next recipient; with Shift the one before' },
  { id: 'looked', keys: 'Space', does: 'In Proof: looked at, next; in a grid or among slips: open the message' },
  { id: 'values', keys: 'Alt Shift Enter', does: 'Show the recipient’s values in place of names, and back' },
  {
    id: 'outline',
    keys: 'F6',
    does: 'To the outline of the passages, and back to the text; in Fill, into the message and back',
  },
  { id: 'alternative', keys: 'F4', does: 'One more alternative, where the caret is in one' },
  { id: 'find', keys: `${command} F`, does: 'Find and replace in the text that is being written' },
  { id: 'hand-over', keys: `${command} Enter`, does: 'Hand over, confirm' },
  { id: 'anyway', keys: `${command} Shift Enter`, does: 'Hand over even if something is blank' },
  { id: 'leave', keys: 'Esc', does: 'Leave the text, close what is open' },
] as const;

const isCommand = (event: KeyboardEvent): boolean => (onMac ? event.metaKey : event.ctrlKey) && !event.altKey;

/** Which entry of the table a key press is, with the direction where it has one. */
export function keyOf(event: KeyboardEvent): { id: (typeof KEYS)[number]['id']; back: boolean } | undefined {
  const hit = (id: (typeof KEYS)[number]['id']): { id: (typeof KEYS)[number]['id']; back: boolean } => ({
    id,
    back: event.shiftKey,
  });
  if (isCommand(event) && event.key.toLowerCase() === 'k') return hit('call');
  if (isCommand(event) && event.key === 'Enter') return hit(event.shiftKey ? 'anyway' : 'hand-over');
  if (event.altKey && !event.ctrlKey && !event.metaKey && event.key === 'Enter')
    return hit(event.shiftKey ? 'values' : 'insert');
  if (isCommand(event) && !event.shiftKey && event.key.toLowerCase() === 'f') return hit('find');
  if (event.key === 'F2') return hit('blank');
  if (event.key === 'F4' && !event.altKey && !event.ctrlKey) return hit('alternative');
  if (event.key === 'F6') return hit('outline');
  if (event.key === 'F8') return hit('finding');
  if (event.key === 'F9') return hit('recipient');
  return undefined;
}

/** Undo and redo where nothing is typed into: a field has an undo of its own. */
export function undoKey(event: KeyboardEvent): 'undo' | 'redo' | undefined {
  const target = event.target as HTMLElement | null;
  if (!isCommand(event) || event.defaultPrevented) return undefined;
  if (target?.closest('input:not([type="checkbox"], [type="radio"]), textarea, [contenteditable="true"]'))
    return undefined;
  const key = event.key.toLowerCase();
  if (key === 'z') return event.shiftKey ? 'redo' : 'undo';
  return key === 'y' ? 'redo' : undefined;
}
