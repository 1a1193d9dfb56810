/** People: who they are, how they sign in, what they may see. */
import * as z from 'zod';
import { MIN_PASSWORD, ROLES, SCOPES } from './constants.js';
import { nameSchema } from './texts.js';

const field = z.string().max(500);
/** What a person says of themselves: the sender of their messages. */
export const profileSchema = z.strictObject({
  name: field,
  email: field,
  title: field,
  telephone: field,
  pronouns: field,
  booking_link: field,
  /** Own fields, by key. */
  own: z.record(
    z
      .string()
      .regex(/^[a-z][a-z0-9_]*$/, 'a field has small letters, digits and underscores')
      .max(40),
    field,
  ),
  signature: z.union([nameSchema, z.literal('')]),
  reply_signature: z.union([nameSchema, z.literal('')]),
});
export type Profile = z.infer<typeof profileSchema>;

/** A time of day on the wall clock, to the minute. */
const clock = z.iso.time({ precision: -1, error: 'a time as 09:30' });

/** How somebody hands over, found out by trying it. */
export const waysSchema = z.strictObject({
  /** Their mail program adds a signature of its own. */
  signs: z.boolean(),
  /** Subject and body on the clipboard together, or the subject first and the body at the second press. */
  order: z.enum(['together', 'subject first']),
  look: z.enum(['house', 'structure', 'plain']),
  /** Images arrive. */
  images: z.boolean(),
  /** False until it was tried once. */
  tried: z.boolean(),
  /** Working hours on the wall clock, and the weekdays, 1 for Monday. */
  from: clock,
  to: clock,
  days: z
    .array(z.int().min(1).max(7))
    .max(7)
    .refine((days) => new Set(days).size === days.length, 'each day once'),
});
export type HandOverWays = z.infer<typeof waysSchema>;

const role = z.enum(ROLES);

const address = z
  .string()
  .trim()
  .max(320)
  .regex(/^[^\s@]+@[^\s@]+$/, 'is no address');
const password = z.string().min(MIN_PASSWORD, `a password has ${MIN_PASSWORD} characters at least`).max(200);

/** Signs in. */
export const signInSchema = z.strictObject({ address: z.string().max(320), password: z.string().max(200) });
export type SignIn = z.infer<typeof signInSchema>;
/** The first administrator of a place that has nobody yet. */
export const firstPersonSchema = z.strictObject({ name: field.trim().min(1, 'say your name'), address, password });
export type FirstPerson = z.infer<typeof firstPersonSchema>;
/** Sets a password by a link. */
export const setPasswordSchema = z.strictObject({ token: z.string().max(200), password });
export type SetPassword = z.infer<typeof setPasswordSchema>;
/** Changes one's own password. */
export const changePasswordSchema = z.strictObject({ old: z.string().max(200), password });
export type ChangePassword = z.infer<typeof changePasswordSchema>;

/** Invites somebody. */
export const inviteSchema = z.strictObject({ name: field.trim().min(1, 'say who it is'), address, role });
export type Invite = z.infer<typeof inviteSchema>;
/** Changes somebody's account; what is left out stays. */
export const changePersonSchema = z.strictObject({
  role: role.optional(),
  address: address.optional(),
  /** Ended accounts cannot sign in; what they did stays. */
  ended: z.boolean().optional(),
});
export type ChangePerson = z.infer<typeof changePersonSchema>;

/** A group as it is saved. */
export const saveGroupSchema = z.strictObject({
  title: z.string().trim().min(1, 'a group needs a name').max(80),
  members: z.array(z.string().max(60)).max(10_000),
});
export type SaveGroup = z.infer<typeof saveGroupSchema>;

/** A further address to read and send with, as somebody asks for it. */
export const askAddressSchema = z.strictObject({ address });
/** A further address of somebody. It counts only once an administrator has confirmed it. */
export const ownAddressSchema = z.strictObject({
  address: z.string(),
  confirmed: z.boolean(),
});
export type OwnAddress = Readonly<z.infer<typeof ownAddressSchema>>;

/** Who is signed in, and what the browser needs to know of it. */
export const meSchema = z.strictObject({
  id: z.string(),
  role: role,
  address: z.string(),
  addresses: z.array(ownAddressSchema).readonly(),
  profile: profileSchema,
  ways: waysSchema,
  workspace: z
    .strictObject({
      counting: z.boolean(),
    })
    .readonly(),
});
export type Me = Readonly<z.infer<typeof meSchema>>;

/** Somebody with an account. */
export const personSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  address: z.string(),
  role: role,
  /** `invited` until they have set a password. */
  state: z.enum(['invited', 'active', 'ended']),
  lastSeen: z.string().optional(),
  /** Further addresses, confirmed or asked for. */
  addresses: z.array(ownAddressSchema).readonly(),
});
export type Person = Readonly<z.infer<typeof personSchema>>;
/** A link to be copied and handed over; it is shown once and can be followed once. */
export const oneTimeLinkSchema = z.strictObject({
  path: z.string(),
  endsAt: z.string(),
});
export type OneTimeLink = Readonly<z.infer<typeof oneTimeLinkSchema>>;
/** A group of people. */
export const groupSchema = saveGroupSchema.extend({
  id: z.string(),
});
export type Group = Readonly<z.infer<typeof groupSchema>>;
/** Where somebody is signed in. */
export const sessionSchema = z.strictObject({
  id: z.string(),
  agent: z.string(),
  createdAt: z.string(),
  seenAt: z.string(),
  here: z.boolean(),
});
export type Session = Readonly<z.infer<typeof sessionSchema>>;
/** What a page needs before anybody is signed in. */
export const doorSchema = z.strictObject({
  /** True where there is nobody yet: the first administrator is asked for. */
  first: z.boolean(),
  /** Accounts of the demo, to pick from; none elsewhere. */
  demo: z
    .array(
      z
        .strictObject({
          name: z.string(),
          address: z.string(),
          role: role,
          password: z.string(),
        })
        .readonly(),
    )
    .readonly(),
});
export type Door = Readonly<z.infer<typeof doorSchema>>;
/** Who a link is for. */
export const linkForSchema = z.strictObject({
  name: z.string(),
  address: z.string(),
  what: z.enum(['invitation', 'reset']),
});
export type LinkFor = Readonly<z.infer<typeof linkForSchema>>;

/** Keys for other programs. */
export const makeKeySchema = z.strictObject({
  title: z.string().trim().min(1, 'say what it is for').max(80),
  scopes: z.array(z.enum(SCOPES)).min(1, 'choose what it may do').max(SCOPES.length),
});
export type MakeKey = z.infer<typeof makeKeySchema>;
/** A personal key, without the key itself. */
export const keySchema = z.strictObject({
  id: z.string(),
  title: z.string(),
  start: z.string(),
  scopes: z.array(z.enum(SCOPES)).readonly(),
  createdAt: z.string(),
  usedAt: z.string().optional(),
});
export type Key = Readonly<z.infer<typeof keySchema>>;
/** A key as it is shown once. */
export const newKeySchema = keySchema.extend({
  key: z.string(),
});
export type NewKey = Readonly<z.infer<typeof newKeySchema>>;

/** What of the audit trail is wanted; empty for all. */
export const auditQuerySchema = z.strictObject({
  q: z.string().max(200).default(''),
  who: z.string().max(60).default(''),
  what: z.string().max(20).default(''),
  target: z.string().max(120).default(''),
  from: z.union([z.iso.date(), z.literal('')]).default(''),
  until: z.union([z.iso.date(), z.literal('')]).default(''),
  before: z.coerce.number().int().min(0).optional(),
});
export type AuditQuery = z.infer<typeof auditQuerySchema>;
/** One line of the audit trail. */
export const auditEntrySchema = z.strictObject({
  id: z.number(),
  at: z.string(),
  who: z.string(),
  whoName: z.string(),
  act: z.string(),
  what: z.string(),
  target: z.string(),
  words: z.string(),
});
export type AuditEntry = Readonly<z.infer<typeof auditEntrySchema>>;
