/** The editor's schema: the same documents as the core's, node for node and attribute for attribute. */
import type { Extensions } from '@tiptap/core';
import { envelope } from './envelope';
import { page, words } from './page';
import { passages } from './passages';

/** All nodes and marks; where marks may stand together, their order here is the order in which they are kept. */
export const schema: Extensions = [...envelope, ...page, ...passages, ...words];
