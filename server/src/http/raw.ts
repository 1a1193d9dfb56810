/** Requests whose body is a file. */
import express, { type Request, type RequestHandler } from 'express';
import { RequestProblem } from './problem.js';

/** Takes a file of so many bytes at most. */
export const rawFile = (limit: number): RequestHandler => express.raw({ type: () => true, limit });

/** The file of a request. */
export function bytesOf(request: Request): Uint8Array {
  if (!Buffer.isBuffer(request.body))
    throw new RequestProblem(400, 'bad-request', 'Send the file itself, as application/octet-stream.');
  return request.body;
}
