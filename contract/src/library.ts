/** A library of files, in and out. */
import * as z from 'zod';
import { nameSchema } from './texts.js';
import type { Finding } from '@vocabula/core';

/** What of a library is packed: a folder with what is below it, some texts, or all. */
export const packLibrarySchema = z.strictObject({
  folder: z.string().max(60).optional(),
  names: z.array(nameSchema).max(10_000).optional(),
});
export type PackLibrary = z.infer<typeof packLibrarySchema>;

/** What is done with one item of a library that comes in. */
export const CHOICES = ['take', 'keep both', 'skip'] as const;
export const takeLibrarySchema = z.strictObject({
  /** By the item's path in the library; what is not named is taken where it is new, skipped where it is the same. */
  choices: z.record(z.string().max(400), z.enum(CHOICES)),
  /** The folder that it all goes into. */
  into: z.string().max(60),
});
export type TakeLibrary = z.infer<typeof takeLibrarySchema>;
export type LibraryChoice = (typeof CHOICES)[number];

export interface LibraryItem {
  /** In the zip. */
  readonly path: string;
  readonly what: 'text' | 'asset' | 'house';
  readonly name: string;
  readonly title: string;
  readonly outcome: 'new' | 'changed' | 'same';
  /** Why it cannot be taken. */
  readonly refused: string | undefined;
  readonly findings: readonly Finding[];
}
export interface LibraryLook {
  readonly items: readonly LibraryItem[];
  readonly folders: number;
}
export interface LibraryTaken {
  readonly taken: number;
  readonly kept: number;
  readonly skipped: number;
}
