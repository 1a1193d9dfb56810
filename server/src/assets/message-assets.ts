/** The files of the library that a message brings along. */
import type { Message } from '@vocabula/core';
import { MissingAsset } from '@vocabula/mail';
import { RequestProblem } from '../http/problem.js';

/** The paths of what a message shows or attaches. */
export const assetsOf = ({ html, attachments }: Message): string[] => [
  ...attachments.map(({ file }) => file),
  ...[...html.matchAll(/<img\b[^>]*?\ssrc="(assets\/[^"]*)"/g)].map(([, path = '']) => path),
];

/** Says which attachment is missing as an answer, not as a failure. */
export async function withAssets<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (problem) {
    if (problem instanceof MissingAsset) throw new RequestProblem(422, 'missing-asset', problem.message);
    throw problem;
  }
}
