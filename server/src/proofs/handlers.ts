import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const proofHandlers = ({ proofs }: Pick<Services, 'proofs'>): HandlersOf<'proofs'> => ({
  'GET /proofs/{name}': ({ params: { name }, user }) => proofs.record(name, user),
  'POST /proofs/{name}/looked-at': ({ params: { name }, body, user }) => proofs.look(name, body, user),
  'DELETE /proofs/{name}/looked-at/{digest}': ({ params: { name, digest }, user }) => proofs.unlook(name, digest, user),
  'POST /proofs/{name}/set-aside': ({ params: { name }, body, user }) => proofs.setAside(name, body, user),
  'DELETE /proofs/{name}/set-aside/{digest}': ({ params: { name, digest }, user }) =>
    proofs.bringBack(name, digest, user),
  'POST /proofs/{name}/send': ({ params: { name }, body, user }) => proofs.send(name, body, user),
});
