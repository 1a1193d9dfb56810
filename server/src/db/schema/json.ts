/** Columns that hold JSON: decoded and encoded here, and nowhere else. */
import { customType } from 'drizzle-orm/sqlite-core';

/**
 * A column of JSON of a type. What is written is typed by the statement that writes it; what is read was written so.
 * @throws SyntaxError on reading, where the text is no JSON
 */
export const json = <T>() =>
  customType<{ data: T; driverData: string }>({
    dataType: () => 'text',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (text) => JSON.parse(text) as T,
  })();
