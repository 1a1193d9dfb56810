import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const libraryHandlers = ({ heavy }: Pick<Services, 'heavy'>): HandlersOf<'library'> => ({
  'POST /library/zip': async ({ body: { folder, names }, asker }) => {
    const what = { ...(folder ? { folder } : {}), ...(names ? { names } : {}) };
    const content = await heavy.call('library', 'pack', [what, asker], asker.id);
    return new FileAnswer({ name: 'library.zip', type: 'application/zip', content });
  },
  'POST /library/look': ({ file, asker }) => heavy.json('library', 'look', [file, asker], asker.id),
  'POST /library/take': ({ file, body, asker }) => heavy.json('library', 'take', [file, body, asker], asker.id),
});
