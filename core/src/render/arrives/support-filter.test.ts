import { describe, expect, it } from 'vitest';
import { Losses } from './loss.js';
import { keepOnly, type Support } from './support-filter.js';
import { treeOf, written } from './tree.js';

const NOTHING: Support = { programs: 1, properties: {}, features: [] };
/** What is left of some HTML, and what was lost, with its places. */
function left(html: string, support: Partial<Support>): { html: string; lost: unknown[] } {
  const tree = treeOf(html);
  const losses = new Losses();
  keepOnly({ ...NOTHING, ...support }, tree, losses);
  const lost = losses.all.map(({ what, places }) => [what, ...places]);
  return { html: written(tree.children).replace(/ data-lost="\d+"/g, ''), lost };
}

describe('what a family keeps', () => {
  it('is everything where it leaves nothing out', () => {
    const html = '<p style="margin:0;color:#000000">a &amp; b</p>';
    expect(left(html, {})).toEqual({ html, lost: [] });
  });
  it('is a property nowhere, on some elements only, or not on some', () => {
    const html = '<p style="padding:4px;color:#000000">a</p><td style="padding:4px">b</td>';
    expect(left(html, { properties: { padding: {} } }).html).toBe('<p style="color:#000000">a</p><td>b</td>');
    expect(left(html, { properties: { padding: { only: ['td'] } } })).toEqual({
      html: '<p style="color:#000000">a</p><td style="padding:4px">b</td>',
      lost: [['room around words', 'a']],
    });
    expect(left(html, { properties: { padding: { not: ['td'] } } }).html).toContain('<td>b</td>');
  });
  it('is some values of a property', () => {
    const html = '<p style="margin:0 auto">a</p><p style="margin:0 4px">b</p>';
    expect(left(html, { properties: { margin: { values: ['auto'] } } }).html).toBe(
      '<p>a</p><p style="margin:0 4px">b</p>',
    );
  });
  it('is told once for each kind of loss, with all its places, each once', () => {
    const html = '<p style="padding:1px">a</p><p style="padding:2px">a</p><p style="padding:3px">b</p>';
    expect(left(html, { properties: { padding: {} } }).lost).toEqual([['room around words', 'a', 'b']]);
  });
  it('is no loss where an attribute says the same, or the style says nothing', () => {
    const html =
      '<table width="4" style="width:4px"></table><p style="padding:0">a</p><img style="height:auto" alt="x">';
    const all = { width: {}, padding: {}, height: {} };
    expect(left(html, { properties: all })).toEqual({
      html: '<table width="4"></table><p>a</p><img alt="x">',
      lost: [],
    });
  });
  it('is no page style, where there are none', () => {
    const html = '<head><style>p{color:#ffffff}</style></head><body style="margin:0"><p>a</p></body>';
    expect(left(html, { features: ['style', 'body style'] })).toEqual({
      html: '<head></head><body><p>a</p></body>',
      lost: [['colours for dark pages', '']],
    });
  });
});
