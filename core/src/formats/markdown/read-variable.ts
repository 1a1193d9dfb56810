/** Reads the declarations of variables from front matter. */
import { isMap, isScalar, isSeq, type Node as YamlNode, type YAMLMap } from 'yaml';
import { error, type Place } from '../../findings/finding.js';
import { isKey, isReserved } from '../../template/keys.js';
import { TYPE_NAMES, type Option, type SourceRow, type TypeName, type Variable } from '../../template/variable.js';
import { valueType } from '../../values/index.js';
import { COMMON_ATTRIBUTES, VARIABLE_FORMS } from './front-attributes.js';
import type { Reading } from './inline.js';
import { readInline } from './read-body.js';
import type { FrontReader } from './read-front.js';

/** A variable with the lines of its attributes. */
export interface ReadVariable {
  readonly variable: Variable;
  readonly lines: ReadonlyMap<string, number>;
}

/**
 * Reads one declaration, but for the attributes that `except` names, which the caller reads; undefined if there is
 * nothing to go on. Everything wrong is among the findings.
 */
export function readVariable(
  front: FrontReader,
  reading: Reading,
  key: string,
  node: YamlNode | null,
  line: number,
  {
    what = 'variable',
    except = [],
  }: { readonly what?: 'variable' | 'column' | 'fact'; readonly except?: readonly string[] } = {},
): ReadVariable | undefined {
  const here = { line, variable: key };
  if (!isKey(key)) reading.findings.push(error({ code: 'bad-key', why: 'key', what, key }, here));
  else if (isReserved(key)) reading.findings.push(error({ code: 'reserved-key', why: 'key', key }, here));
  if (!isMap(node)) {
    reading.findings.push(error({ code: 'bad-file', why: 'no-attributes', what, key }, here));
    return undefined;
  }
  const attributes: Record<string, unknown> = {};
  const lines = new Map<string, number>([['', line]]);
  const at = (attribute: string): Place => ({ line: lines.get(attribute) ?? line, variable: key, attribute });
  const unknown = (name: string, type?: string): void =>
    void reading.findings.push(
      error({ code: 'unknown-attribute', why: 'declared', what, name, ...(type ? { type } : {}) }, at(name)),
    );
  for (const [name, value, here] of front.entries(node)) {
    lines.set(name, here);
    if (except.includes(name)) continue;
    if (name === 'type') attributes.type = front.text(value, here, 'type');
    else if (!Object.hasOwn(VARIABLE_FORMS, name)) unknown(name);
    else attributes[name] = readAttribute(front, reading, name as keyof typeof VARIABLE_FORMS, value, here, key);
  }
  const { type } = attributes;
  if (typeof type !== 'string' || !(TYPE_NAMES as readonly string[]).includes(type)) {
    const given = type === undefined ? {} : { type: String(type) };
    reading.findings.push(error({ code: 'unknown-type', what, key, ...given, known: TYPE_NAMES }, at('type')));
    return undefined;
  }
  const known = new Set<string>([...COMMON_ATTRIBUTES, ...valueType(type as TypeName).attributes]);
  for (const name of Object.keys(attributes)) {
    if (known.has(name)) continue;
    unknown(name, type);
    delete attributes[name];
  }
  // In one order, whatever the file's, so that equal declarations are equal byte for byte.
  const ordered = Object.fromEntries(
    Object.keys(VARIABLE_FORMS).flatMap((name) => (attributes[name] === undefined ? [] : [[name, attributes[name]]])),
  );
  return { variable: { key, type, ...ordered } as Variable, lines };
}

// eslint-disable-next-line max-lines-per-function -- one case for each form that an attribute has
function readAttribute(
  front: FrontReader,
  reading: Reading,
  name: keyof typeof VARIABLE_FORMS,
  value: YamlNode | null,
  line: number,
  key: string,
): unknown {
  const wrong = (says: string): undefined => {
    reading.findings.push(
      error({ code: 'bad-value', why: 'form', key, name, says }, { line, variable: key, attribute: name }),
    );
  };
  switch (VARIABLE_FORMS[name]) {
    case 'text':
      return front.text(value, line, name);
    case 'boolean': {
      const text = front.text(value, line, name);
      if (text === undefined) return undefined;
      return text === 'true' ? true : text === 'false' ? false : wrong('must be true or false');
    }
    case 'number': {
      const text = front.text(value, line, name);
      if (text === undefined) return undefined;
      const number = /^[+-]?\d+(\.\d+)?$/.test(text) ? Number(text) : NaN;
      if (!Number.isFinite(number)) return wrong('must be a number');
      const whole = ['min_length', 'max_length', 'decimals', 'least', 'most', 'max_width'].includes(name);
      return whole && (!Number.isInteger(number) || number < 0 || (name === 'decimals' && number > 10))
        ? wrong('must be a whole number that makes sense here')
        : number;
    }
    case 'texts':
      return isSeq(value)
        ? value.items.map((item) => front.text(item as YamlNode, line, name) ?? '')
        : wrong('must be a list, such as [mon, tue]');
    case 'map':
      return isMap(value) ? front.texts(value) : wrong('must have entries, such as { one: ticket, other: tickets }');
    case 'maps':
      return isMap(value)
        ? Object.fromEntries(
            front
              .entries(value)
              .map(([form, inner, at]) => [
                form,
                isMap(inner) ? front.texts(inner) : (wrong(`needs entries at line ${at}`) ?? {}),
              ]),
          )
        : wrong('must have entries');
    case 'default':
      return readDefault(front, value, line, name);
    case 'options':
      return isMap(value)
        ? front
            .entries(value, 'option')
            .map(([option, inner, at]) => readOption(front, reading, option, inner, at, key))
        : wrong('must have options, such as { north: { label: North } }');
    case 'columns':
      return isMap(value)
        ? front
            .entries(value, 'column')
            .flatMap(
              ([column, inner, at]) =>
                readVariable(front, reading, column, inner, at, { what: 'column' })?.variable ?? [],
            )
        : wrong('must have columns, such as { name: { type: text } }');
  }
}

function readDefault(front: FrontReader, value: YamlNode | null, line: number, name: string): Variable['default'] {
  if (!isSeq(value)) return front.text(value, line, name);
  const rows = value.items.filter((item): item is YAMLMap => isMap(item));
  if (rows.length > 0) return rows.map((row): SourceRow => front.texts(row));
  return value.items.map((item) => (isScalar(item) ? String(item.value) : ''));
}

function readOption(
  front: FrontReader,
  reading: Reading,
  key: string,
  value: YamlNode | null,
  line: number,
  variable: string,
): Option {
  const option: { key: string; label?: string; wording?: Option['wording'] } = { key };
  if (value === null || (isScalar(value) && value.value === '')) return option;
  if (!isMap(value)) {
    reading.findings.push(
      error(
        { code: 'bad-value', why: 'option-empty', key },
        {
          line,
          variable,
          attribute: 'options',
        },
      ),
    );
    return option;
  }
  for (const [name, inner, at] of front.entries(value)) {
    const text = front.text(inner, at, name);
    if (text === undefined) continue;
    if (name === 'label') option.label = text;
    else if (name === 'wording') option.wording = readInline(text, reading, at);
    else
      reading.findings.push(
        error(
          { code: 'unknown-attribute', why: 'declared', what: 'option', name },
          { line: at, variable, attribute: name },
        ),
      );
  }
  if (option.wording?.length === 0) delete option.wording;
  return option;
}
