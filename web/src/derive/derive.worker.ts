/** Worker that derives a template. To stop it, terminate it. */
import { derive, pastMailOf } from '@vocabula/core/derive';
import type { DeriveReply, DeriveRequest } from './protocol';

/** Progress is posted in steps of this share. */
const STEP = 0.02;
const tell = (reply: DeriveReply): void => postMessage(reply);

addEventListener('message', ({ data: { mails, locale, settled, frame } }: MessageEvent<DeriveRequest>) => {
  let told = 0;
  try {
    const derived = derive(mails.map(pastMailOf), {
      locale,
      settled,
      frame,
      onProgress(share) {
        if (share - told < STEP) return;
        told = share;
        tell({ share });
      },
    });
    tell({ derived });
  } catch (error) {
    tell({ problem: error instanceof Error ? error.message : 'These mails cannot be compared.' });
  }
});
