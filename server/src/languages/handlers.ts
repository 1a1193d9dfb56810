import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const languageHandlers = ({ languages }: Pick<Services, 'languages'>): HandlersOf<'languages'> => ({
  'GET /languages/{name}/agreed': ({ params: { name }, user }) => languages.agreed(name, user),
  'POST /languages/{name}/agreed': ({ params: { name }, body, user }) => languages.agree(name, body, user),
});
