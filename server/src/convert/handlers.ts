import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';
import { starters } from './starters.js';

export const convertHandlers = ({
  converter,
}: Pick<Services, 'converter'>): HandlersOf<'starters'> & HandlersOf<'convert'> => ({
  'GET /starters': () => [...starters()],
  'POST /convert': ({ query: { name }, file, user }) => converter.convert(name, file, user),
});
