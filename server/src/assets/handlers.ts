import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const assetHandlers = ({ assets }: Pick<Services, 'assets'>): HandlersOf<'assets'> => ({
  'GET /assets': ({ user }) => assets.list(user),
  'POST /assets': ({ query: { name, exact }, file, user }) => assets.add(name, file, exact === 'true', user),
  'GET /assets/{file}': async ({ params: { file }, user }) => {
    const { type, content } = await assets.content(`assets/${file}`, user);
    return new FileAnswer({
      name: type.startsWith('image/') ? undefined : file,
      type,
      content,
      // Whatever a file is, it is shown as what it was found to be, and can do nothing.
      headers: { 'content-security-policy': "default-src 'none'; sandbox", 'cache-control': 'private, no-cache' },
    });
  },
});
