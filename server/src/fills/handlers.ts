import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const fillHandlers = ({
  fills,
  handOvers,
  standing,
  wake,
}: Pick<Services, 'fills' | 'handOvers' | 'standing' | 'wake'>): HandlersOf<'fills'> => ({
  'GET /fills': ({ user }) => fills.list(user),
  'POST /fills': async ({ body: { standing: rule, ...body }, user }) => {
    // What a standing reply offers begins with what the letter says.
    const found = rule && body.letter ? await standing.answers(rule, body.letter, user) : {};
    return fills.start({ ...body, answers: { ...found, ...body.answers } }, user);
  },
  'POST /fills/read': ({ file, user }) => fills.readOriginal(file, user),
  'GET /fills/read/{letter}': async ({ params: { letter }, user }) => {
    const read = await fills.readLetter(letter, user);
    const offered = await standing.offered(letter, user);
    const others = read.likely.filter(({ name }) => !offered.some((each) => each.name === name));
    return { ...read, likely: [...offered, ...others] };
  },
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
