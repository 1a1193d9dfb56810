import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const standingHandlers = ({
  standing,
  heavy,
}: Pick<Services, 'standing' | 'heavy'>): HandlersOf<'standing'> => ({
  'GET /standing': ({ user }) => standing.list(user),
  'POST /standing': ({ body, user }) => standing.make(body, user),
  'GET /standing/decisions': ({ user }) => standing.decisions(user),
  'GET /standing/{id}': ({ params: { id }, user }) => standing.get(id, user),
  'PUT /standing/{id}': ({ params: { id }, body, user }) => standing.save(id, body, user),
  'PATCH /standing/{id}': ({ params: { id }, body, user }) => standing.drive(id, body, user),
  'POST /standing/{id}/try': ({ params: { id }, body: { wrong }, user }) =>
    heavy.json('standing', 'try', [id, wrong, user], user.id),
  'GET /standing/{id}/replies/{letter}': ({ params: { id, letter }, user }) => standing.reply(id, letter, user),
});
