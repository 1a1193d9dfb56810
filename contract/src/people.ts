/** People: who they are, how they sign in, what they may see. */
import * as z from 'zod';
import { nameSchema } from './texts.js';

const field = z.string().max(500);
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

export const EMPTY_PROFILE: Profile = {
  name: '',
  email: '',
  title: '',
  telephone: '',
  pronouns: '',
  booking_link: '',
  own: {},
  signature: '',
  reply_signature: '',
};

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
  from: z.string().regex(/^\d\d:\d\d$/),
  to: z.string().regex(/^\d\d:\d\d$/),
  days: z.array(z.int().min(1).max(7)).max(7),
});
export type HandOverWays = z.infer<typeof waysSchema>;
export const USUAL_WAYS: HandOverWays = {
  signs: false,
  order: 'together',
  look: 'house',
  images: true,
  tried: false,
  from: '09:00',
  to: '17:00',
  days: [1, 2, 3, 4, 5],
};

/** The profile as sender fields of a message. */
export function senderFields({
  own,
  signature: _signature,
  reply_signature: _reply,
  ...fields
}: Profile): Record<string, string> {
  return { ...own, ...fields };
}

/** What a person is. An administrator also looks after people; a colleague fills. */
export const ROLES = ['administrator', 'author', 'colleague'] as const;
export type Role = (typeof ROLES)[number];
const role = z.enum(ROLES);

const address = z
  .string()
  .trim()
  .max(320)
  .regex(/^[^\s@]+@[^\s@]+$/, 'is no address');
/** The least that a password has. Longer sentences are better than odd signs, which are not asked for. */
export const MIN_PASSWORD = 10;
const password = z.string().min(MIN_PASSWORD, `a password has ${MIN_PASSWORD} characters at least`).max(200);

export const signInSchema = z.strictObject({ address: z.string().max(320), password: z.string().max(200) });
export type SignIn = z.infer<typeof signInSchema>;
/** The first administrator of a place that has nobody yet. */
export const firstPersonSchema = z.strictObject({ name: field.trim().min(1, 'say your name'), address, password });
export type FirstPerson = z.infer<typeof firstPersonSchema>;
export const setPasswordSchema = z.strictObject({ token: z.string().max(200), password });
export type SetPassword = z.infer<typeof setPasswordSchema>;
export const changePasswordSchema = z.strictObject({ old: z.string().max(200), password });
export type ChangePassword = z.infer<typeof changePasswordSchema>;

export const inviteSchema = z.strictObject({ name: field.trim().min(1, 'say who it is'), address, role });
export type Invite = z.infer<typeof inviteSchema>;
export const changePersonSchema = z.strictObject({
  role: role.optional(),
  address: address.optional(),
  /** Ended accounts cannot sign in; what they did stays. */
  ended: z.boolean().optional(),
});
export type ChangePerson = z.infer<typeof changePersonSchema>;

export const groupSchema = z.strictObject({
  title: z.string().trim().min(1, 'a group needs a name').max(80),
  members: z.array(z.string().max(60)).max(10_000),
});
export type SaveGroup = z.infer<typeof groupSchema>;

/** A further address to read and send with, as somebody asks for it. */
export const ownAddressSchema = z.strictObject({ address });
/** A further address of somebody. It counts only once an administrator has confirmed it. */
export interface OwnAddress {
  readonly address: string;
  readonly confirmed: boolean;
}

/** Who is signed in, and what the browser needs to know of it. */
export interface Me {
  readonly id: string;
  readonly role: Role;
  readonly address: string;
  readonly addresses: readonly OwnAddress[];
  readonly profile: Profile;
  readonly ways: HandOverWays;
  readonly workspace: { readonly counting: boolean };
}

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly address: string;
  readonly role: Role;
  /** `invited` until they have set a password. */
  readonly state: 'invited' | 'active' | 'ended';
  readonly lastSeen: string | undefined;
  /** Further addresses, confirmed or asked for. */
  readonly addresses: readonly OwnAddress[];
}
/** A link to be copied and handed over; it is shown once and can be followed once. */
export interface OneTimeLink {
  readonly path: string;
  readonly endsAt: string;
}
export interface Group extends SaveGroup {
  readonly id: string;
}
export interface Session {
  readonly id: string;
  readonly agent: string;
  readonly createdAt: string;
  readonly seenAt: string;
  readonly here: boolean;
}
/** What a page needs before anybody is signed in. */
export interface Door {
  /** True where there is nobody yet: the first administrator is asked for. */
  readonly first: boolean;
  /** Accounts of the demo, to pick from; none elsewhere. */
  readonly demo: readonly {
    readonly name: string;
    readonly address: string;
    readonly role: Role;
    readonly password: string;
  }[];
}
/** Who a link is for. */
export interface LinkFor {
  readonly name: string;
  readonly address: string;
  readonly what: 'invitation' | 'reset';
}

/** Keys for other programs. */
export const SCOPES = ['read', 'render', 'publish'] as const;
export type Scope = (typeof SCOPES)[number];
export const makeKeySchema = z.strictObject({
  title: z.string().trim().min(1, 'say what it is for').max(80),
  scopes: z.array(z.enum(SCOPES)).min(1, 'choose what it may do').max(SCOPES.length),
});
export type MakeKey = z.infer<typeof makeKeySchema>;
export interface Key {
  readonly id: string;
  readonly title: string;
  readonly start: string;
  readonly scopes: readonly Scope[];
  readonly createdAt: string;
  readonly usedAt: string | undefined;
}
/** A key as it is shown once. */
export interface NewKey extends Key {
  readonly key: string;
}

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
export interface AuditEntry {
  readonly id: number;
  readonly at: string;
  readonly who: string;
  readonly whoName: string;
  readonly act: string;
  readonly what: string;
  readonly target: string;
  readonly words: string;
}
