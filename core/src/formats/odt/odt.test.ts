import { describe, expect, it } from 'vitest';
import { odtToHtml } from './index.js';

const content = (styles: string, text: string): string =>
  `<office:document-content><office:automatic-styles>${styles}</office:automatic-styles><office:body><office:text>${text}</office:text></office:body></office:document-content>`;
const read = (styles: string, text: string): string | undefined =>
  odtToHtml({ content: content(styles, text), image: () => undefined });

describe('an OpenDocument text', () => {
  it('is read however many elements stand beside each other, or in each other', () => {
    expect(read('<style:other/>'.repeat(200_000), '<text:p>a</text:p>')).toBe('<p>a</p>');
    expect(read('', '<text:p>a</text:p>'.repeat(200_000))?.length).toBe('<p>a</p>'.length * 200_000);
    expect(read('', '<text:section>'.repeat(5000) + '<text:p>a</text:p>')).toBe('');
  });
  it('has styles that are made from each other in a ring, and one that is made from itself', () => {
    const styles = ['a:b', 'b:a', 'c:c'].map((pair) => {
      const [name, parent] = pair.split(':');
      return `<style:style style:name="${name}" style:parent-style-name="${parent}"/>`;
    });
    expect(read(styles.join(''), '<text:p text:style-name="a">x</text:p><text:p text:style-name="c">y</text:p>')).toBe(
      '<p>x</p><p>y</p>',
    );
  });
  it('writes nothing that is markup: words, addresses and names of images are escaped', () => {
    expect(read('', '<text:p>&lt;b&gt; <text:a xlink:href="x&quot;&gt;&lt;i">w</text:a></text:p>')).toBe(
      '<p>&lt;b&gt; <a href="x&quot;&gt;&lt;i">w</a></p>',
    );
  });
});
