/** What the application itself puts around one's messages: the house's header and footer, and one's signatures. */
import { compileBundle, render, type House } from '@vocabula/core';
import { frameLines, type FramePart } from '@vocabula/core/derive';
import { shallowRef } from 'vue';
import { useHouse } from '../ui/house';
import { ensureText, knownText, knownTexts } from '../ui/library';
import { useMe } from '../ui/me';
import { today, zone } from '../ui/today';

export function useFrame() {
  const me = useMe();
  const house = useHouse();
  const frame = shallowRef<readonly FramePart[]>([]);

  /** A text's lines as they stand in a message, by itself. */
  async function linesOf(name: string): Promise<string[]> {
    await ensureText(name);
    const document = knownText(name);
    if (!document) return [];
    const { header: _, footer: __, ...style } = house.house.style;
    const plain: House = { ...house.house, style };
    const texts = knownTexts().map(([each, own]) => ({ name: each, document: own }));
    const program = compileBundle({ text: { name, document }, texts, house: plain, today: today() });
    return frameLines(render(program, { sender: me.fields(), today: today(), zone: zone() }).html);
  }
  async function load(): Promise<void> {
    await Promise.all([me.load(), house.load()]);
    const { signature, reply_signature } = me.profile;
    const { header, footer } = house.house.style;
    const named = [
      ['header', header],
      ['footer', footer],
      ['signature', signature],
      ['signature', reply_signature],
    ] as const;
    const parts: FramePart[] = [];
    for (const [what, name] of named) if (name) parts.push({ what, lines: await linesOf(name) });
    frame.value = parts.filter(({ lines }) => lines.length > 0);
  }
  /** Resolves when it is known; where it cannot be, what stands around messages is compared as the rest of them. */
  const known = load().catch(() => undefined);
  return { frame, known };
}
