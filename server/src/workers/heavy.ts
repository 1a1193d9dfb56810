/**
 * Methods of services that take long for large inputs, called in a worker thread on a connection of its own, so that the
 * thread that answers requests does none of their work.
 */
import { JsonText } from '../http/endpoints.js';
import type { Pace, Workers } from './pool.js';
import type { HeavyServices } from './served.js';

export type HeavyService = keyof HeavyServices;
/** Services whose calls somebody waits for while they go on working. */
const PACES: Readonly<Record<HeavyService, Pace>> = {
  alike: 'long',
  catalogue: 'quick',
  files: 'long',
  impact: 'long',
  insight: 'long',
  letters: 'long',
  library: 'long',
  mailings: 'long',
  recipients: 'long',
  standing: 'long',
  tables: 'long',
  versions: 'quick',
};
// Methods are told from other members by being callable; their own parameter types are checked at the call.
type Method = (...given: never[]) => unknown;
export type HeavyMethod<S extends HeavyService> = {
  [M in keyof HeavyServices[S]]: HeavyServices[S][M] extends Method ? M : never;
}[keyof HeavyServices[S]] &
  string;
export type HeavyArgs<S extends HeavyService, M extends HeavyMethod<S>> = HeavyServices[S][M] extends (
  ...given: infer A
) => unknown
  ? A
  : never;
export type HeavyResult<S extends HeavyService, M extends HeavyMethod<S>> = HeavyServices[S][M] extends (
  ...given: never[]
) => infer R
  ? Awaited<R>
  : never;

/** Which services are meant: those on this database, with this mail service. */
export interface Serving {
  readonly url: string;
  readonly smtp: string | undefined;
}
/** A call as it goes to a thread. */
export interface HeavyCall {
  readonly on: Serving;
  readonly service: HeavyService;
  readonly method: string;
  readonly args: readonly unknown[];
  /** As JSON text, large results are copied much faster. */
  readonly as: 'value' | 'json';
}

export class Heavy {
  constructor(
    private readonly workers: Workers,
    private readonly serving: () => Serving,
  ) {}

  /** Calls a method. @param by id of the person it is for. @throws RequestProblem as the method does, or `too-costly` */
  async call<S extends HeavyService, M extends HeavyMethod<S>>(
    service: S,
    method: M,
    args: HeavyArgs<S, M>,
    by: string,
  ): Promise<HeavyResult<S, M>> {
    return (await this.run(service, method, args, by, 'value')) as HeavyResult<S, M>;
  }

  /** Calls a method whose result is an answer, and gives it as JSON text, which is copied much faster. */
  async json<S extends HeavyService, M extends HeavyMethod<S>>(
    service: S,
    method: M,
    args: HeavyArgs<S, M>,
    by: string,
  ): Promise<JsonText<HeavyResult<S, M>>> {
    return new JsonText((await this.run(service, method, args, by, 'json')) as string);
  }

  private run(
    service: HeavyService,
    method: string,
    args: readonly unknown[],
    by: string,
    as: HeavyCall['as'],
  ): Promise<unknown> {
    return this.workers.run('call', { on: this.serving(), service, method, args, as }, by, PACES[service]);
  }
}
