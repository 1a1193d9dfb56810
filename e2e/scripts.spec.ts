/** Words that are scripts: stored in every field that is shown anywhere, they stay words. */
import { expect, test, type Page } from './journey.js';
import { signIn } from './people.js';

const BAD = '<img src=x onerror="window.hit=1"><script>window.hit=1</script>"\'><svg onload=window.hit=1>';

async function stored(page: Page): Promise<string> {
  const send = async (method: 'post' | 'put' | 'patch', path: string, data: object) =>
    (await (await page.request[method](`/api${path}`, { data })).json().catch(() => ({}))) as Record<string, never>;
  const me = await send('post', '/people', { name: BAD, address: 'bad@x.example', role: 'author' });
  await send('post', '/people/groups', { title: BAD.slice(0, 80), members: [me.id] });
  const { id: folder } = await send('post', '/folders', {
    parent: 'root',
    title: BAD.replace(/[/\\]/g, '').slice(0, 80),
  });
  const { name, document, revision } = await send('post', '/texts', { kind: 'message', title: BAD, folder });
  const text = { type: 'text', text: BAD };
  const parts = {
    subject: { type: 'subject', content: [text] },
    body: { type: 'body', content: [{ type: 'paragraph', content: [text] }] },
  };
  const { content, attrs } = document as unknown as {
    content: { type: keyof typeof parts }[];
    attrs: { front: object };
  };
  const variables = [
    { key: 'a', type: 'choice', label: BAD, help: BAD, options: [{ key: 'o', label: BAD, wording: [text] }] },
  ];
  const changed = {
    ...(document as unknown as object),
    attrs: { ...attrs, front: { ...attrs.front, description: BAD, owner: BAD.slice(0, 200), call: 'bad' }, variables },
    content: content.map((part) => parts[part.type] ?? part),
  };
  await send('put', `/texts/${name}`, { document: changed, revision });
  await send('post', `/versions/${name}/remarks`, { quote: { exact: '<img', prefix: '', suffix: '' }, body: BAD });
  await send('post', `/versions/${name}/publish`, { revision: Number(revision) + 1, note: BAD });
  const report = { messages: 1, set: BAD, errors: 0, warnings: 1, findings: [BAD] };
  await send('post', `/requests/for/${name}`, { revision: Number(revision) + 1, note: BAD, report });
  await send('post', `/texts/many`, { act: 'tag', names: [name], tags: ['<b>bad</b>'] });
  await send('post', '/me/keys', { title: BAD.slice(0, 80), scopes: ['read'] });
  const csv = `first_name,email,a\n"${BAD.replace(/"/g, '""')}",x@x.example,o\n`;
  await page.request.post(`/api/tables?use=sample&title=${encodeURIComponent(`Zz ${BAD.slice(0, 60)}`)}`, {
    headers: { 'content-type': 'application/octet-stream' },
    data: Buffer.from(csv),
  });
  return String(name);
}

test('stored in every field, they are shown as words in every place, and run nowhere', async ({ page }) => {
  await signIn(page.request, 'ruairi');
  const name = await stored(page);
  const fill = (await (
    await page.request.post('/api/fills', { data: { text: name, recipient: { first_name: BAD } } })
  ).json()) as { id: string };
  const places = [
    `/catalogue/${name}`,
    '/catalogue?view=asked',
    `/write/${name}`,
    `/publish/${name}`,
    `/versions/${name}`,
    `/proof/${name}/one`,
    '/samples',
    `/fill/${fill.id}`,
    '/fill',
    ...['people', 'groups', 'audit', 'programs'].map((part) => `/settings/${part}`),
  ];
  for (const place of places) {
    await page.goto(place);
    await page.waitForLoadState('networkidle');
    const frames = await Promise.all(
      page.frames().map((frame) =>
        frame.evaluate(() => ({
          hit: (window as unknown as { hit?: number }).hit,
          images: document.querySelectorAll('img[src="x"], svg[onload]').length,
        })),
      ),
    );
    expect([place, frames.filter(({ hit, images }) => hit !== undefined || images > 0)]).toEqual([place, []]);
  }
  await expect(page.getByText('<img src=x').first()).toBeVisible();
  // Out of the way of other journeys.
  await page.request.post('/api/texts/many', { data: { act: 'bin', names: [name] } });
  for (const { id, title } of (await (await page.request.get('/api/tables?use=sample')).json()) as {
    id: string;
    title: string;
  }[])
    if (title.startsWith('Zz ')) await page.request.delete(`/api/tables/${id}`);
});

test('names in other scripts have letters: their fonts come from the server, and only when they are met', async ({
  page,
}) => {
  const refused: string[] = [];
  page.on('console', (message) => {
    if (message.text().includes('Content Security Policy')) refused.push(message.text().slice(0, 60));
  });
  const fonts: string[] = [];
  page.on('request', (request) => {
    if (/noto-sans-.*\.woff2/.test(request.url())) fonts.push(request.url());
  });
  await page.goto('/write');
  await expect(page.getByLabel(/^Title/)).toBeVisible();
  expect(fonts).toEqual([]);
  await page.getByLabel(/^Title/).pressSequentially('はな 王芳 김민준 سارة נועה आशा');
  for (const [script, letters] of [
    ['JP', 'は'],
    ['SC', '王'],
    ['KR', '김'],
    ['Arabic', 'س'],
    ['Hebrew', 'נ'],
    ['Devanagari', 'आ'],
  ] as const)
    await expect
      .poll(() =>
        page.evaluate(
          async ([family, text]) => (await document.fonts.load(`16px "Noto Sans ${family} Variable"`, text)).length,
          [script, letters] as const,
        ),
      )
      .toBeGreaterThan(0);
  expect(refused).toEqual([]);
});
