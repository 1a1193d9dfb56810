import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const mailroomHandlers = ({
  letters,
  clock,
  heavy,
}: Pick<Services, 'letters' | 'clock' | 'heavy'>): HandlersOf<'mailroom'> => ({
  'GET /mailroom/letters': ({ user }) => letters.list(user),
  'GET /mailroom/letters/{id}': ({ params: { id }, user }) => heavy.json('letters', 'get', [id, user], user.id),
  'PATCH /mailroom/letters/{id}': ({ params: { id }, body: { done }, user }) => letters.done(id, done, user),
  'GET /mailroom/inbox': ({ query: { done }, user }) => letters.inbox(user, done === 'true'),
  'POST /mailroom/drop': ({ file, user }) => heavy.json('letters', 'drop', [file, user], user.id),
  'GET /mailroom/clock': () => clock.clock(),
  'POST /mailroom/clock': ({ body: { hours } }) => clock.forward(hours),
});
