/** Tags inside link targets. */
import { tagsIn, type Tag } from '../formats/markdown/tags.js';
import { closingTag, openingTag, type Condition } from '../template/condition.js';
import { placeholderTag } from '../formats/markdown/tags.js';

/** What becomes of the tags of a target. `undefined` takes a tag out; conditions lose both of theirs. */
export interface TagChanges {
  readonly placeholder?: (name: string, view: string) => { readonly name: string; readonly view: string } | string;
  readonly condition?: (condition: Condition) => Condition | undefined;
}

/** A target with its tags changed; what is no tag stays as it is. */
export function mapTags(target: string, { placeholder, condition }: TagChanges): string {
  let out = '';
  let at = 0;
  const open: { readonly was: string; readonly now: Condition | undefined }[] = [];
  for (const { tag, start, end } of tagsIn(target)) {
    out += target.slice(at, start) + (changed(tag) ?? target.slice(start, end));
    at = end;
  }
  return out + target.slice(at);

  function changed(tag: Tag): string | undefined {
    if (tag.kind === 'placeholder' && placeholder) {
      const now = placeholder(tag.name, tag.view);
      return typeof now === 'string' ? now : placeholderTag(now);
    }
    if (tag.kind === 'open' && condition) {
      const now = condition(tag.condition);
      open.push({ was: closingTag(tag.condition), now });
      return now ? openingTag(now) : '';
    }
    if (tag.kind === 'close') {
      const index = open.findLastIndex(({ was }) => was === `{{/${tag.name}}}`);
      const [pair] = index < 0 ? [] : open.splice(index, 1);
      if (pair) return pair.now ? closingTag(pair.now) : '';
    }
    return undefined;
  }
}
