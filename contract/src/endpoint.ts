/** What an endpoint is: who may call it, what it takes, what it answers. */
import type * as z from 'zod';
import type { Caller, Scope } from './constants.js';

/** An HTTP method that endpoints use. */
export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
/** Method and path below `/api`, with `{name}` for parameters: `GET /texts/{name}`. */
export type EndpointKey = `${Method} /${string}`;

/** The body of an endpoint that takes a file: alone, or in a form as `file`, with the JSON of `body` as `choices`. */
export interface FileTaken {
  readonly as: 'file' | 'form';
  /** The most it may have, in bytes. */
  readonly bytes: number;
}
/** An answer that is a file, of a type that the handler says. */
export const FILE = 'file';

interface Exchange {
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  readonly file?: FileTaken;
  /** The most that JSON may have, where that is not the default: bytes, and values in it. */
  readonly most?: { readonly bytes: number; readonly values?: number };
  /** JSON, or a file; none where there is nothing to say (204). */
  readonly answer?: z.ZodType | typeof FILE;
  /** Something was made. */
  readonly status?: 201;
}
/** An endpoint for the pages. What its caller may do to which thing is for the service behind it to say. */
export interface PageEndpoint extends Exchange {
  readonly role: Caller;
}
/** An endpoint for other programs, called with a personal key of that scope. */
export interface KeyEndpoint extends Exchange {
  readonly scope: Scope;
  /** In OpenAPI. */
  readonly id: string;
  readonly summary: string;
  readonly answer: z.ZodType;
}
/** An endpoint of either kind. */
export type Endpoint = PageEndpoint | KeyEndpoint;
