import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const fillHandlers = ({
  fills,
  handOvers,
  wake,
}: Pick<Services, 'fills' | 'handOvers' | 'wake'>): HandlersOf<'fills'> => ({
  'GET /fills': ({ asker }) => fills.list(asker),
  'POST /fills': ({ body, asker }) => fills.start(body, asker),
  'POST /fills/read': ({ file, asker }) => fills.readOriginal(file, asker),
  'GET /fills/read/{letter}': ({ params: { letter }, asker }) => fills.readLetter(letter, asker),
  'GET /fills/{id}': ({ params: { id }, asker }) => fills.get(id, asker),
  'PUT /fills/{id}': ({ params: { id }, body, asker }) => fills.save(id, body, asker),
  'GET /fills/{id}/memory': ({ params: { id }, query: { address }, asker }) => fills.memory(id, address, asker),
  'GET /fills/{id}/newest': ({ params: { id }, asker }) => fills.newest(id, asker),
  'POST /fills/{id}/parts': ({ params: { id }, body, asker }) => fills.stitch(id, body, asker),
  'POST /fills/{id}/suggest': ({ params: { id }, body, asker }) => fills.suggest(id, body, asker),
  'POST /fills/{id}/hand-over': async ({ params: { id }, body, asker }) => {
    const { result, file } = await handOvers.handOver(id, body, asker);
    if (body.way === 'service') wake();
    return file ? new FileAnswer(file) : result;
  },
  'DELETE /fills/{id}': ({ params: { id }, asker }) => fills.bin(id, true, asker),
  'POST /fills/{id}/restore': ({ params: { id }, asker }) => fills.bin(id, false, asker),
});
