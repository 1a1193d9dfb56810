import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const houseHandlers = ({ houses }: Pick<Services, 'houses'>): HandlersOf<'house'> => ({
  'GET /house': ({ user }) => houses.get(user),
  'PUT /house': ({ body, user }) => houses.save(body, user),
  'GET /house/file': async ({ user }) =>
    new FileAnswer({
      name: 'house.yaml',
      type: 'application/yaml; charset=utf-8',
      content: await houses.file(user),
    }),
});
