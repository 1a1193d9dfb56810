import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';
import { starters } from './starters.js';

export const convertHandlers = ({
  converter,
}: Pick<Services, 'converter'>): HandlersOf<'starters'> & HandlersOf<'convert'> => ({
  'GET /starters': () => [...starters()],
  'POST /convert/mails': ({ query: { name }, file, user }) => converter.mails(name, file, user),
  'GET /convert/sent/texts': ({ user }) => converter.sentTexts(user),
  'GET /convert/sent': ({ query, user }) => converter.sent(query, user),
  'POST /convert/sent/chosen': ({ body, user }) => converter.sent(body, user),
  'POST /convert': ({ query: { name }, file, user }) => converter.convert(name, file, user),
});
