-- What is kept of a message until it has gone held two values as JSON text within its JSON. They are JSON themselves now.
UPDATE outgoing SET record = json_set(
  record,
  '$.recipients', json(record ->> '$.recipients'),
  '$.answers', json(record ->> '$.answers')
) WHERE record IS NOT NULL AND json_type(record, '$.recipients') = 'text';
