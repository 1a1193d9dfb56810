import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const versionHandlers = ({
  versions,
  impact,
  remarks,
  trials,
  heavy,
}: Pick<Services, 'versions' | 'impact' | 'remarks' | 'trials' | 'heavy'>): HandlersOf<'versions'> => ({
  'GET /versions/{name}': ({ params: { name }, user }) => versions.standing(name, user),
  'GET /versions/{name}/findings': ({ params: { name }, user }) =>
    heavy.json('versions', 'findings', [name, user], user.id),
  'POST /versions/{name}/publish': ({ params: { name }, body, user }) =>
    heavy.json('versions', 'publish', [name, body, user], user.id),
  'DELETE /versions/{name}/timed/{id}': ({ params: { name, id }, user }) => versions.takeBack(name, id, user),
  'GET /versions/{name}/states/{state}': ({ params: { name, state }, user }) => versions.state(name, state, user),
  'POST /versions/{name}/restore': ({ params: { name }, body, user }) =>
    heavy.json('versions', 'restore', [name, body, user], user.id),
  'POST /versions/{name}/checkpoints': ({ params: { name }, body: { reason }, user }) =>
    versions.checkpoint(name, reason, user),
  'GET /versions/{name}/versions/{number}/sent': ({ params: { name, number }, user }) =>
    versions.sentFrom(name, number, user),
  'POST /versions/{name}/versions/{number}/withdraw': ({ params: { name, number }, body, user }) =>
    versions.withdraw(name, number, body, user),
  'PUT /versions/{name}/retired': ({ params: { name }, body, user }) => versions.retire(name, body, user),
  'DELETE /versions/{name}/retired': ({ params: { name }, user }) => versions.retire(name, undefined, user),
  'GET /versions/{name}/dependents': ({ params: { name }, user }) => impact.dependents(name, user),
  'GET /versions/{name}/impact/{template}': ({ params: { name, template }, user }) =>
    heavy.json('impact', 'impact', [name, template, user], user.id),
  'GET /versions/{name}/remarks': ({ params: { name }, user }) => remarks.list(name, user),
  'POST /versions/{name}/remarks': ({ params: { name }, body, user }) => remarks.make(name, body, user),
  'PATCH /versions/{name}/remarks/{id}': ({ params: { name, id }, body, user }) => remarks.change(name, id, body, user),
  'GET /versions/{name}/trials': ({ params: { name }, user }) => trials.list(name, user),
  'POST /versions/{name}/trials': ({ params: { name }, body, user }) => trials.start(name, body, user),
  'POST /versions/{name}/trials/{id}/end': ({ params: { name, id }, body, user }) => trials.end(name, id, body, user),
});

export const requestHandlers = ({ requests }: Pick<Services, 'requests'>): HandlersOf<'requests'> => ({
  'GET /requests': ({ user }) => requests.list(user),
  'POST /requests/for/{name}': ({ params: { name }, body, user }) => requests.ask(name, body, user),
  'POST /requests/{id}/answer': ({ params: { id }, body, user }) => requests.answer(id, body, user),
  'DELETE /requests/{id}': ({ params: { id }, user }) => requests.takeBack(id, user),
});
