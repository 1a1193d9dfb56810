import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const mailroomHandlers = ({
  letters,
  clock,
  heavy,
}: Pick<Services, 'letters' | 'clock' | 'heavy'>): HandlersOf<'mailroom'> => ({
  'GET /mailroom/letters': ({ asker }) => letters.list(asker),
  'GET /mailroom/letters/{id}': ({ params: { id }, asker }) => heavy.json('letters', 'get', [id, asker], asker.id),
  'PATCH /mailroom/letters/{id}': ({ params: { id }, body: { done }, asker }) => letters.done(id, done, asker),
  'GET /mailroom/inbox': ({ query: { done }, asker }) => letters.inbox(asker, done === 'true'),
  'POST /mailroom/drop': ({ file, asker }) => heavy.json('letters', 'drop', [file, asker], asker.id),
  'GET /mailroom/clock': () => clock.clock(),
  'POST /mailroom/clock': ({ body: { hours } }) => clock.forward(hours),
});
