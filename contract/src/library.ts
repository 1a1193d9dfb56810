/** A library of files, in and out. */
import * as z from 'zod';
import { nameSchema } from './texts.js';
import { findingSchema } from './shared-schemas.js';

/** What of a library is packed: a folder with what is below it, some texts, or all. */
export const packLibrarySchema = z.strictObject({
  folder: z.string().max(60).optional(),
  names: z.array(nameSchema).max(10_000).optional(),
});
export type PackLibrary = z.infer<typeof packLibrarySchema>;

/** What is done with one item of a library that comes in. */
export const CHOICES = ['take', 'keep both', 'skip'] as const;
/** Takes a library in. */
export const takeLibrarySchema = z.strictObject({
  /** By the item's path in the library; what is not named is taken where it is new, skipped where it is the same. */
  choices: z.record(z.string().max(400), z.enum(CHOICES)),
  /** The folder that it all goes into. */
  into: z.string().max(60),
});
export type TakeLibrary = z.infer<typeof takeLibrarySchema>;
/** One of the things that can be done with an item. */
export type LibraryChoice = (typeof CHOICES)[number];

/** Something that a library brings. */
export const libraryItemSchema = z.strictObject({
  /** In the zip. */
  path: z.string(),
  what: z.enum(['text', 'asset', 'house']),
  name: z.string(),
  title: z.string(),
  outcome: z.enum(['new', 'changed', 'same']),
  /** Why it cannot be taken. */
  refused: z.string().optional(),
  findings: z.array(findingSchema).readonly(),
});
export type LibraryItem = Readonly<z.infer<typeof libraryItemSchema>>;
/** What a library brings, before anything of it is taken. */
export const libraryLookSchema = z.strictObject({
  items: z.array(libraryItemSchema).readonly(),
  folders: z.number(),
});
export type LibraryLook = Readonly<z.infer<typeof libraryLookSchema>>;
/** How many items were taken, kept beside and left. */
export const libraryTakenSchema = z.strictObject({
  taken: z.number(),
  kept: z.number(),
  skipped: z.number(),
});
export type LibraryTaken = Readonly<z.infer<typeof libraryTakenSchema>>;
