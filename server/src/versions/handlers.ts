import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const versionHandlers = ({
  versions,
  impact,
  remarks,
  heavy,
}: Pick<Services, 'versions' | 'impact' | 'remarks' | 'heavy'>): HandlersOf<'versions'> => ({
  'GET /versions/{name}': ({ params: { name }, asker }) => versions.standing(name, asker),
  'GET /versions/{name}/findings': ({ params: { name }, asker }) =>
    heavy.json('versions', 'findings', [name, asker], asker.id),
  'POST /versions/{name}/publish': ({ params: { name }, body, asker }) =>
    heavy.json('versions', 'publish', [name, body, asker], asker.id),
  'DELETE /versions/{name}/timed/{id}': ({ params: { name, id }, asker }) => versions.takeBack(name, id, asker),
  'GET /versions/{name}/states/{state}': ({ params: { name, state }, asker }) => versions.state(name, state, asker),
  'POST /versions/{name}/restore': ({ params: { name }, body, asker }) =>
    heavy.json('versions', 'restore', [name, body, asker], asker.id),
  'POST /versions/{name}/checkpoints': ({ params: { name }, body: { reason }, asker }) =>
    versions.checkpoint(name, reason, asker),
  'GET /versions/{name}/versions/{number}/sent': ({ params: { name, number }, asker }) =>
    versions.sentFrom(name, number, asker),
  'POST /versions/{name}/versions/{number}/withdraw': ({ params: { name, number }, body, asker }) =>
    versions.withdraw(name, number, body, asker),
  'PUT /versions/{name}/retired': ({ params: { name }, body, asker }) => versions.retire(name, body, asker),
  'DELETE /versions/{name}/retired': ({ params: { name }, asker }) => versions.retire(name, undefined, asker),
  'GET /versions/{name}/dependents': ({ params: { name }, asker }) => impact.dependents(name, asker),
  'GET /versions/{name}/impact/{template}': ({ params: { name, template }, asker }) =>
    heavy.json('impact', 'impact', [name, template, asker], asker.id),
  'GET /versions/{name}/remarks': ({ params: { name }, asker }) => remarks.list(name, asker),
  'POST /versions/{name}/remarks': ({ params: { name }, body, asker }) => remarks.make(name, body, asker),
  'PATCH /versions/{name}/remarks/{id}': ({ params: { name, id }, body, asker }) =>
    remarks.change(name, id, body, asker),
});

export const requestHandlers = ({ requests }: Pick<Services, 'requests'>): HandlersOf<'requests'> => ({
  'GET /requests': ({ asker }) => requests.list(asker),
  'POST /requests/for/{name}': ({ params: { name }, body, asker }) => requests.ask(name, body, asker),
  'POST /requests/{id}/answer': ({ params: { id }, body, asker }) => requests.answer(id, body, asker),
  'DELETE /requests/{id}': ({ params: { id }, asker }) => requests.takeBack(id, asker),
});
