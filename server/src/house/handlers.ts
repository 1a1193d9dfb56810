import { FileAnswer, type HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const houseHandlers = ({ houses }: Pick<Services, 'houses'>): HandlersOf<'house'> => ({
  'GET /house': ({ asker }) => houses.get(asker),
  'PUT /house': ({ body, asker }) => houses.save(body, asker),
  'GET /house/file': async ({ asker }) =>
    new FileAnswer({
      name: 'house.yaml',
      type: 'application/yaml; charset=utf-8',
      content: await houses.file(asker),
    }),
});
