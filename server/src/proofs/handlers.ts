import type { HandlersOf } from '../http/endpoints.js';
import type { Services } from '../services.js';

export const proofHandlers = ({ proofs }: Pick<Services, 'proofs'>): HandlersOf<'proofs'> => ({
  'GET /proofs/{name}': ({ params: { name }, asker }) => proofs.record(name, asker),
  'POST /proofs/{name}/looked-at': ({ params: { name }, body, asker }) => proofs.look(name, body, asker),
  'DELETE /proofs/{name}/looked-at/{digest}': ({ params: { name, digest }, asker }) =>
    proofs.unlook(name, digest, asker),
  'POST /proofs/{name}/set-aside': ({ params: { name }, body, asker }) => proofs.setAside(name, body, asker),
  'DELETE /proofs/{name}/set-aside/{digest}': ({ params: { name, digest }, asker }) =>
    proofs.bringBack(name, digest, asker),
  'POST /proofs/{name}/send': ({ params: { name }, body, asker }) => proofs.send(name, body, asker),
});
