/** What an editor of a whole text is made of: the schema, and what typing in it does. */
import type { Extensions } from '@tiptap/core';
import { Dropcursor, Gapcursor, UndoRedo } from '@tiptap/extensions';
import { Deleting, type DeletingOptions } from './plugins/deleting';
import { Edges } from './plugins/edges';
import { Focusing } from './plugins/focusing';
import { Folding } from './plugins/folding';
import { Found } from './plugins/highlights';
import { Markdown } from './plugins/markdown';
import { Pasting, type PastingOptions } from './plugins/pasting';
import { Steps } from './plugins/steps';
import { Typing } from './plugins/typing';
import { schema } from './schema';

export const extensions = (options: Partial<DeletingOptions & PastingOptions> = {}): Extensions => [
  ...schema,
  Gapcursor,
  Dropcursor,
  UndoRedo.configure({ depth: 400 }),
  Focusing,
  Markdown,
  Typing,
  Deleting.configure(options),
  Pasting.configure(options),
  Edges,
  Folding,
  Found,
  Steps,
];
