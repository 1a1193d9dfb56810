// @vitest-environment happy-dom
import type { Door } from '@vocabula/contract';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { openPage, Refusal, screen, settled, type Answers, type Page } from '../ui/testing/page';

let page: Page;
const went = vi.fn();
beforeEach(() => {
  went.mockClear();
  vi.spyOn(location, 'assign').mockImplementation(went);
});
afterEach(() => {
  page.close();
  vi.restoreAllMocks();
});
const DOOR: Door = { first: false, demo: [] };
const field = (name: string | RegExp): HTMLInputElement => screen.getByLabelText(name);
async function open(path: string, answers: Answers): Promise<void> {
  page = await openPage(path, answers);
}

describe('signing in', () => {
  it('goes where one wanted to go, by Enter', async () => {
    await open('/sign-in?to=/catalogue', { 'GET /door': DOOR, 'POST /door/sign-in': undefined });
    await page.user.type(field('Address'), 'maeve@larkmoor.example');
    await page.user.type(field('Password'), 'heather-on-the-moor{Enter}');
    await settled();
    expect(page.sent('POST /door/sign-in')).toEqual([
      { address: 'maeve@larkmoor.example', password: 'heather-on-the-moor' },
    ]);
    expect(went).toHaveBeenCalledWith('/catalogue');
  });
  it('never leads to another site', async () => {
    await open('/sign-in?to=//elsewhere.example', { 'GET /door': DOOR, 'POST /door/sign-in': undefined });
    await page.user.type(field('Address'), 'maeve@larkmoor.example');
    await page.user.type(field('Password'), 'heather-on-the-moor{Enter}');
    await settled();
    expect(went).toHaveBeenCalledWith('/');
  });
  it('says that it was refused, and keeps what was typed', async () => {
    await open('/sign-in', {
      'GET /door': DOOR,
      'POST /door/sign-in': () => {
        throw new Refusal(401, 'wrong', 'Address and password do not match.');
      },
    });
    await page.user.type(field('Address'), 'maeve@larkmoor.example');
    await page.user.type(field('Password'), 'not it at all, no');
    await page.user.click(screen.getByRole('button', { name: 'Sign in' }));
    await settled();
    expect(screen.getByRole('alert').textContent).toContain('Address and password do not match.');
    expect(field('Address').value).toBe('maeve@larkmoor.example');
    expect(went).not.toHaveBeenCalled();
  });
  it('offers the people of the demo', async () => {
    const hana = { name: 'Hana Sato', role: 'colleague', address: 'hana@larkmoor.example', password: 'x'.repeat(12) };
    await open('/sign-in', { 'GET /door': { first: false, demo: [hana] } as Door, 'POST /door/sign-in': undefined });
    await page.user.click(screen.getByRole('button', { name: /Hana Sato/ }));
    await settled();
    expect(page.sent('POST /door/sign-in')).toEqual([{ address: hana.address, password: hana.password }]);
  });
});

describe('an empty installation', () => {
  it('asks for its first administrator', async () => {
    await open('/sign-in', { 'GET /door': { first: true, demo: [] }, 'POST /door/first': undefined } as Answers);
    expect(screen.getByRole('heading', { name: 'The first administrator' })).toBeTruthy();
    await page.user.type(field('Your name'), 'Maeve Quill');
    await page.user.type(field('Address'), 'maeve@larkmoor.example');
    await page.user.type(field('Password'), 'short');
    await page.user.click(screen.getByRole('button', { name: 'Create account' }));
    await settled();
    expect(went).not.toHaveBeenCalled();
    expect(field('Password').getAttribute('autocomplete')).toBe('new-password');
  });
});

describe('a link', () => {
  it('for a new password says whose it is, and explains the length', async () => {
    await open('/enter/token', {
      'GET /door/links/{token}': { what: 'invitation', name: 'Nia', address: 'nia@larkmoor.example' },
      'POST /door/password': undefined,
    } as Answers);
    expect(screen.getByRole('heading', { name: 'Welcome, Nia' })).toBeTruthy();
    expect(screen.getByText(/At least \d+ characters/)).toBeTruthy();
    await page.user.type(field('Password'), 'a long and quiet sentence{Enter}');
    await settled();
    expect(went).toHaveBeenCalledWith('/');
  });
  it('that has ended leads to signing in', async () => {
    await open('/enter/token', {
      'GET /door/links/{token}': () => {
        throw new Refusal(404, 'not-found', 'This link has expired.');
      },
    } as Answers);
    expect(screen.getByRole('status').textContent).toContain('This link has expired.');
    expect(screen.getByRole('link', { name: 'Sign in' })).toBeTruthy();
  });
});
