import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const libraryHandlers = ({ heavy }: Pick<Services, 'heavy'>): HandlersOf<'library'> => ({
  'POST /library/zip': async ({ body: { folder, names }, user }) => {
    const what = { ...(folder ? { folder } : {}), ...(names ? { names } : {}) };
    const content = await heavy.call('library', 'pack', [what, user], user.id);
    return new FileAnswer({ name: 'library.zip', type: 'application/zip', content });
  },
  'POST /library/look': ({ file, user }) => heavy.json('library', 'look', [file, user], user.id),
  'POST /library/take': ({ file, body, user }) => heavy.json('library', 'take', [file, body, user], user.id),
});
