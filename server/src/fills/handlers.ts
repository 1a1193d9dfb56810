import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const fillHandlers = ({
  fills,
  handOvers,
  wake,
}: Pick<Services, 'fills' | 'handOvers' | 'wake'>): HandlersOf<'fills'> => ({
  'GET /fills': ({ user }) => fills.list(user),
  'POST /fills': ({ body, user }) => fills.start(body, user),
  'POST /fills/read': ({ file, user }) => fills.readOriginal(file, user),
  'GET /fills/read/{letter}': ({ params: { letter }, user }) => fills.readLetter(letter, user),
  'GET /fills/{id}': ({ params: { id }, user }) => fills.get(id, user),
  'PUT /fills/{id}': ({ params: { id }, body, user }) => fills.save(id, body, user),
  'GET /fills/{id}/memory': ({ params: { id }, query: { address }, user }) => fills.memory(id, address, user),
  'GET /fills/{id}/newest': ({ params: { id }, user }) => fills.newest(id, user),
  'POST /fills/{id}/parts': ({ params: { id }, body, user }) => fills.stitch(id, body, user),
  'POST /fills/{id}/suggest': ({ params: { id }, body, user }) => fills.suggest(id, body, user),
  'POST /fills/{id}/hand-over': async ({ params: { id }, body, user }) => {
    const { result, file } = await handOvers.handOver(id, body, user);
    if (body.way === 'service') wake();
    return file ? new FileAnswer(file) : result;
  },
  'DELETE /fills/{id}': ({ params: { id }, user }) => fills.bin(id, true, user),
  'POST /fills/{id}/restore': ({ params: { id }, user }) => fills.bin(id, false, user),
});
