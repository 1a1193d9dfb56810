// @vitest-environment happy-dom
/** Webhooks: made with a secret that is shown once, tried out, taken away; administrators alone see them. */
import type { Webhook } from '@vocabula/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { useDemo, type DemoPage } from '../ui/testing/demoPage';
import { screen } from '../ui/testing/page';
import { eventually, part, says, stepsOf } from '../ui/testing/steps';

const demo = useDemo();
let page: DemoPage | undefined;
afterEach(() => {
  page?.close();
  page = undefined;
});

describe('webhooks', () => {
  it('are made, tried and taken away', async () => {
    page = await demo.open('/settings/programs', 'ruairi');
    const person = stepsOf(page.user);
    await part('Webhooks');
    await person.write('Address', 'desk.example');
    await person.press('Make a webhook');
    await says(/An address begins with/);
    // Nobody listens there.
    await person.write('Address', 'http://127.0.0.1:9/hook');
    await person.tick('came back');
    await person.press('Make a webhook');
    await says(/shown this once/);
    const [made] = await demo.as('ruairi').call<Webhook[]>('GET', '/webhooks');
    expect(made).toMatchObject({ url: 'http://127.0.0.1:9/hook', events: ['handed over', 'sent', 'answered'] });
    await person.press('Try it');
    await says(/a test: It could not be reached\. Tried again/);
    await person.press('Take away');
    await eventually(() => expect(screen.queryByText('http://127.0.0.1:9/hook')).toBeNull());
  });

  it('are not shown to others', async () => {
    page = await demo.open('/settings/programs', 'maeve');
    await screen.findByLabelText('What it is for');
    expect(screen.queryByRole('region', { name: 'Webhooks' })).toBeNull();
  });
});
