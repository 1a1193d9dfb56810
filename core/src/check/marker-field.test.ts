import { describe, expect, it } from 'vitest';
import { fieldMeant } from './marker-field.js';

const FIELDS = ['recipient.first_name', 'recipient.email', 'recipient.adopted_plant', 'sender.name', 'sender.phone'];

describe('a marker means a field', () => {
  it.each([
    ['First name', 'recipient.first_name'],
    ['FIRST_NAME', 'recipient.first_name'],
    ['Vorname', 'recipient.first_name'],
    ['Prénom', 'recipient.first_name'],
    ['e-mail address', 'recipient.email'],
    ['adopted plant', 'recipient.adopted_plant'],
    ['my name', 'sender.name'],
    ['My phone number', 'sender.phone'],
    ['name', undefined],
    ['phone', undefined],
    ['date', undefined],
    ['my', undefined],
    ['', undefined],
  ])('%s', (words, field) => expect(fieldMeant(words, FIELDS)).toBe(field));
});
