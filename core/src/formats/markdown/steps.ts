/** Reads and writes the steps of a series, as the front matter has them. */
import { isMap, isSeq, type Node as YamlNode } from 'yaml';
import { error, type FindingData } from '../../findings/finding.js';
import { isClock, readWait, writeWait, type Step } from '../../template/steps.js';
import type { Reading } from './inline.js';
import type { FrontReader } from './read-front.js';
import { flow, quoted, scalar, type Entry } from './yaml.js';

const ATTRIBUTES: readonly string[] = ['text', 'wait', 'at', 'when', 'look', 'later'];

/** Reads the steps. What is no step is a finding and left out. */
export function readSteps(front: FrontReader, reading: Reading, node: YamlNode | null, line: number): Step[] {
  const fault = (data: FindingData<'bad-step' | 'unknown-attribute' | 'bad-file'>, at = line): void =>
    void reading.findings.push(error(data, { line: at, attribute: 'steps' }));
  if (!isSeq(node)) {
    fault({ code: 'bad-file', why: 'not-list', name: 'steps', example: '{ text, wait }' });
    return [];
  }
  return (node.items as YamlNode[]).flatMap((item, index): Step[] => {
    const step = index + 1;
    if (!isMap(item)) {
      fault({ code: 'bad-step', why: 'form', step });
      return [];
    }
    const entries = new Map(front.entries(item).map(([key, value, at]) => [key, { value, at }]));
    const text = (key: string): string | undefined => {
      const entry = entries.get(key);
      return entry && front.text(entry.value, entry.at, key);
    };
    for (const [name, { at }] of entries)
      if (!ATTRIBUTES.includes(name)) fault({ code: 'unknown-attribute', why: 'here', name }, at);
    const name = text('text');
    if (!name) {
      fault({ code: 'bad-step', why: 'form', step });
      return [];
    }
    const [wait, at, when, look] = [text('wait'), text('at'), text('when'), text('look')];
    const counted = wait === undefined ? {} : readWait(wait);
    if (!counted) fault({ code: 'bad-step', why: 'wait', step, text: wait ?? '' });
    if (at !== undefined && !isClock(at)) fault({ code: 'bad-step', why: 'clock', step, text: at });
    const later = entries.get('later')?.value;
    const keys = isSeq(later) ? later.items.flatMap((each) => front.text(each as YamlNode, line, 'later') ?? []) : [];
    if (look !== undefined && !['true', 'false'].includes(look))
      reading.findings.push(
        error(
          { code: 'bad-value', why: 'not-one-of', name: 'look', allowed: ['true', 'false'] },
          { line, attribute: 'steps' },
        ),
      );
    return [
      {
        text: name,
        ...counted,
        ...(at !== undefined && isClock(at) ? { at } : {}),
        ...(when ? { when } : {}),
        ...(look === 'true' ? { look: true as const } : {}),
        ...(keys.length > 0 ? { later: keys } : {}),
      },
    ];
  });
}

/** The lines of the front matter that say the steps. */
export function stepLines(steps: readonly Step[], remark: (key: string) => void): string[] {
  if (steps.length === 0) return [];
  remark('steps');
  return ['steps:', ...steps.map((step) => `  - ${flow(entriesOf(step))}`)];
}

function entriesOf(step: Step): Entry[] {
  const { text, at, when, look, later } = step;
  const wait = writeWait(step);
  return [
    ['text', scalar(text)],
    ...(wait === undefined ? [] : [['wait', scalar(wait)] as const]),
    ...(at === undefined ? [] : [['at', quoted(at)] as const]),
    ...(when === undefined ? [] : [['when', quoted(when)] as const]),
    ...(look ? [['look', 'true'] as const] : []),
    ...(later ? [['later', `[${later.map(scalar).join(', ')}]`] as const] : []),
  ];
}
