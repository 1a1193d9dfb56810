/** Texts out of files that people have. What a file brings along is kept; the file itself is not. */
import type { Converted } from '@vocabula/contract';
import type { AssetService } from '../assets/service.js';
import type { User } from '../people/user.js';
import type { Workers } from '../workers/pool.js';
import type { BroughtFile } from './reading.js';

export class ConvertService {
  constructor(
    private readonly assets: AssetService,
    private readonly workers: Workers,
  ) {}

  /** Reads a file into a text without a title. Nothing but the images and attachments it brings is kept. */
  async convert(name: string, bytes: Uint8Array, user: User): Promise<Converted> {
    const { images, attachments } = await this.workers.run('broughtBy', { name, bytes }, user.id, 'long');
    const kept = { images: await this.keep(images, user), attachments: await this.keep(attachments, user) };
    return this.workers.run('readAs', { name, bytes, kept }, user.id, 'long');
  }

  /** Keeps what is an asset, and says under which path, by its source; the rest is left out. */
  private async keep(files: readonly BroughtFile[], user: User): Promise<Record<string, string>> {
    const kept: Record<string, string> = {};
    for (const { source, name, content } of files) {
      const asset = await this.assets.add(name, content, false, user).catch(() => undefined);
      if (asset) kept[source] = asset.path;
    }
    return kept;
  }
}
