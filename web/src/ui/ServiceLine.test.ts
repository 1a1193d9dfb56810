// @vitest-environment happy-dom
import type { SendingService } from '@vocabula/contract';
import { flushPromises, mount } from '@vue/test-utils';
import { afterEach, expect, it, vi } from 'vitest';
import { api, ApiProblem } from '../api/client';
import ServiceLine from './ServiceLine.vue';
import { unmountAfterEach } from './testing/unmount';

unmountAfterEach();
afterEach(() => {
  vi.restoreAllMocks();
  vi.useRealTimers();
});
const PAUSE = { why: 'It cannot be reached.', since: '', until: '2026-11-27T09:00:00.000Z', everybody: true };
async function lineFor(service: SendingService): Promise<string> {
  vi.spyOn(api, 'sendingService').mockResolvedValue(service);
  const wrapper = mount(ServiceLine);
  await flushPromises();
  return wrapper.text();
}

it('says nothing while a service takes the mail', async () => {
  expect(await lineFor({ kind: 'service', pause: undefined })).toBe('');
});
it('says where mail goes otherwise, and why it does not', async () => {
  expect(await lineFor({ kind: 'none', pause: undefined })).toContain('not sent from here');
  expect(await lineFor({ kind: 'stand-in', pause: undefined })).toContain('nothing leaves this machine');
  expect(await lineFor({ kind: 'service', pause: PAUSE })).toMatch(
    /^‸ Sending is paused\. It cannot be reached\. It is tried again at /,
  );
  expect(await lineFor({ kind: 'service', pause: { ...PAUSE, everybody: false } })).toContain(
    'Sending from your address is paused',
  );
});
it('asks again, and keeps what it knew while the server is away', async () => {
  vi.useFakeTimers();
  const asked = vi.spyOn(api, 'sendingService').mockResolvedValueOnce({ kind: 'stand-in', pause: undefined });
  const wrapper = mount(ServiceLine);
  await vi.advanceTimersByTimeAsync(0);
  asked.mockRejectedValueOnce(new ApiProblem(0, 'offline', 'away'));
  await vi.advanceTimersByTimeAsync(5000);
  expect(wrapper.text()).toContain('Test mail service');
  asked.mockResolvedValueOnce({ kind: 'service', pause: undefined });
  await vi.advanceTimersByTimeAsync(5000);
  expect(wrapper.text()).toBe('');
});
it('says why the mailbox cannot be read', async () => {
  const mailbox = { reading: false, why: 'The mailbox refuses the user or the password.' };
  expect(await lineFor({ kind: 'service', pause: undefined, mailbox })).toBe(`‸ ${mailbox.why}`);
  expect(await lineFor({ kind: 'service', pause: undefined, mailbox: { reading: true, why: '' } })).toBe('');
});
