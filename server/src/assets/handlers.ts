import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const assetHandlers = ({ assets }: Pick<Services, 'assets'>): HandlersOf<'assets'> => ({
  'GET /assets': ({ asker }) => assets.list(asker),
  'POST /assets': ({ query: { name, exact }, file, asker }) => assets.add(name, file, exact === 'true', asker),
  'GET /assets/{file}': async ({ params: { file }, asker }) => {
    const { type, content } = await assets.content(`assets/${file}`, asker);
    return new FileAnswer({
      name: type.startsWith('image/') ? undefined : file,
      type,
      content,
      // Whatever a file is, it is shown as what it was found to be, and can do nothing.
      headers: { 'content-security-policy': "default-src 'none'; sandbox", 'cache-control': 'private, no-cache' },
    });
  },
});
