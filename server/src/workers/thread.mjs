/** What a worker thread begins with: TypeScript is read as it is in the process itself. */
import { register } from 'tsx/esm/api';

register();
const { perform } = await import('./tasks.ts');

export default perform;
