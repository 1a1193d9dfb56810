/** Tests of pages whose workers run, in the same thread. */
import '@vitest/web-worker';
