/** Profiles and ways of handing over that nobody has filled in yet, and what a message takes of a profile. */
import type { HandOverWays, Profile } from './people.js';

/** A person's profile before they have written one. */
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

/** How somebody hands over who has not tried it yet. */
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
