/** Takes down what a test has mounted; files of one process share what the library keeps of it. */
import { disableAutoUnmount, enableAutoUnmount } from '@vue/test-utils';
import { afterEach } from 'vitest';

/** To be called once in a file of tests. */
export function unmountAfterEach(): void {
  disableAutoUnmount();
  enableAutoUnmount(afterEach);
}
