/** Mail addresses, telephone numbers and links. A value is a string: an address, E.164, an absolute URL. */
import { parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/min';
import type { Variable } from '../template/variable.js';
import type { DeclarationProblem, ValueType } from './type.js';

const LOCAL = /^[^\s@<>()[\],;:"\\\p{C}]+$/u;
const DOMAIN = /^[\p{L}\p{N}](?:[\p{L}\p{N}-]*[\p{L}\p{N}])?(?:\.[\p{L}\p{N}](?:[\p{L}\p{N}-]*[\p{L}\p{N}])?)+$/u;

/** True for one bare address. Quoted local parts, comments and routes are not taken. */
export function isEmail(text: string): boolean {
  const at = text.lastIndexOf('@');
  const local = text.slice(0, at);
  return (
    at > 0 &&
    text.length <= 254 &&
    LOCAL.test(local) &&
    !local.startsWith('.') &&
    !local.endsWith('.') &&
    !local.includes('..') &&
    DOMAIN.test(text.slice(at + 1))
  );
}

const SCHEMES = new Set(['http:', 'https:', 'mailto:', 'tel:']);

/** The URL, if it is absolute and of a scheme that may stand in a message. */
export function safeUrl(text: string): URL | undefined {
  try {
    const url = new URL(text);
    return SCHEMES.has(url.protocol) && !/[\s\p{C}]/u.test(text) ? url : undefined;
  } catch {
    return undefined;
  }
}

function domainProblem(host: string, variable: Variable): string | undefined {
  const { domains } = variable;
  if (!domains) return undefined;
  const name = host.toLowerCase();
  return domains.some((domain) => name === domain.toLowerCase() || name.endsWith(`.${domain.toLowerCase()}`))
    ? undefined
    : `This must be at ${domains.join(' or ')}.`;
}

const declaredDomains = (variable: Variable): DeclarationProblem[] =>
  (variable.domains ?? [])
    .filter((domain) => !DOMAIN.test(domain))
    .map((domain) => ({ attribute: 'domains', message: `“${domain}” is not a domain, such as larkmoor.example.` }));

/** An e-mail address; `domains` says which are taken. */
export const email: ValueType = {
  name: 'email',
  attributes: ['domains'],
  parse(input, variable) {
    const text = typeof input === 'string' ? input.trim() : '';
    if (!isEmail(text)) return { problem: 'This must be one address, such as ann@larkmoor.example.' };
    const problem = domainProblem(text.slice(text.lastIndexOf('@') + 1), variable);
    return problem ? { problem } : { value: text };
  },
  views: () => [],
  formatter: (_variable, view) => (view === '' ? String : undefined),
  declared: declaredDomains,
  specimen: () => 'ada@larkmoor.example',
  expressionType: 'string',
  family: 'text',
  control: 'email',
  isPersonal: true,
  column: 'email',
  hard: ({ isLongest }) =>
    isLongest ? 'maximiliane.featherstonehaugh-cholmondeley@brackenholt-horticultural-society.example' : undefined,
  madeUp: ({ address }) => address(),
};

/** A telephone number, with its country in the reader's language. */
export const phone: ValueType = {
  name: 'phone',
  attributes: [],
  parse(input, _variable, context) {
    const text = typeof input === 'string' && input.length < 60 ? input.trim() : '';
    const region = new Intl.Locale(context.locale).region as CountryCode | undefined;
    // Possible, not assigned: numbers set aside for fiction are none that anybody has.
    const number = parsePhoneNumberFromString(text, { ...(region ? { defaultCountry: region } : {}), extract: false });
    return number?.isPossible()
      ? { value: number.number }
      : { problem: 'This must be a telephone number with its country code, such as +353 20 910 0123.' };
  },
  views: () => ['display'],
  formatter: (_variable, view) =>
    view === '' || view === 'display'
      ? (value) => parsePhoneNumberFromString(String(value))?.formatInternational() ?? String(value)
      : undefined,
  declared: () => [],
  specimen: () => '+442079460018',
  expressionType: 'string',
  family: 'text',
  control: 'phone',
  isPersonal: true,
  column: 'phone',
  madeUp: (context) => context.phone(),
};

/** An address of a page; `domains` says which are taken. */
export const link: ValueType = {
  name: 'link',
  attributes: ['domains'],
  parse(input, variable) {
    const text = typeof input === 'string' ? input.trim() : '';
    const url = text.length <= 4000 ? safeUrl(text) : undefined;
    if (!url) return { problem: 'This must be a whole address that begins with https://, http://, mailto: or tel:.' };
    const problem = domainProblem(
      url.protocol === 'mailto:' ? url.pathname.slice(url.pathname.lastIndexOf('@') + 1) : url.hostname,
      variable,
    );
    return problem ? { problem } : { value: text };
  },
  views: () => ['display'],
  formatter(_variable, view) {
    if (view === '') return String;
    return view === 'display'
      ? (value) =>
          String(value)
            .replace(/^[a-z]+:(\/\/)?/i, '')
            .replace(/\/$/, '')
      : undefined;
  },
  declared: declaredDomains,
  specimen: () => 'https://larkmoor.example/visit',
  expressionType: 'string',
  family: 'text',
  control: 'link',
  isPersonal: true,
  column: 'link',
  hard: ({ isLongest }) =>
    isLongest ? `https://larkmoor.example/${'gardens-and-glasshouses/'.repeat(4)}?group=42` : undefined,
};
